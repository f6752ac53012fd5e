"""What tests say that change a document whichever state it is in."""

ANY_STATE = {"If-Match": "*"}
