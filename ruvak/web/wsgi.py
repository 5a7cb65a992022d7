"""What gunicorn loads: gunicorn ruvak.web.wsgi:app."""

from ruvak.web import logs
from ruvak.web.app import create_app

logs.configure()
app = create_app()
