"""An application with one empty route, to be served just as the service is."""

from flask import Flask

app = Flask(__name__, static_folder=None)


@app.get("/api/v1/suggest")
def empty() -> str:
    """Nothing."""
    return ""
