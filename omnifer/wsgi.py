"""The application for the web server, which is told its database and weather service by the environment."""

import os

from omnifer.api.app import create_app

app = create_app(
    os.environ["OMNIFER_DATABASE"], os.environ["OMNIFER_SECRET_KEY"], weather_address=os.environ.get("OMNIFER_WEATHER")
)
