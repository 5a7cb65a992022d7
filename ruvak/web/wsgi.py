"""What gunicorn loads: gunicorn ruvak.web.wsgi:app."""

import gc

from ruvak.web import logs
from ruvak.web.app import create_app

logs.configure()
app = create_app()
# The library, the schemas and the routes live as long as the worker; looking at them again while an analysis makes
# its thousands of records costs a tenth of it.
gc.freeze()
gc.set_threshold(20_000, 20, 20)
