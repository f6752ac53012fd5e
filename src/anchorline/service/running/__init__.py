"""Starting the service and keeping it going: the port, the account, and everything that may die.

`supervisor` puts it together; `listening` takes the port, `account` says who the rest of it is,
and `keeping` brings back what dies. Nothing here loads the application: the process that stays in
front is small, and starts at once.
"""
