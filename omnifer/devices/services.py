"""All stand-ins for services in one process: /weather, /map, /heights."""

from flask import Flask
from werkzeug.middleware.dispatcher import DispatcherMiddleware

from omnifer.devices.map_service import create_height_service, create_map_service
from omnifer.devices.weather_service import create_service


def create_services() -> Flask:
    """The application that hands on to each."""
    app = Flask(__name__, static_folder=None)
    apps = {"/weather": create_service(), "/map": create_map_service(), "/heights": create_height_service()}
    app.wsgi_app = DispatcherMiddleware(app.wsgi_app, {path: one.wsgi_app for path, one in apps.items()})  # type: ignore[method-assign]
    return app
