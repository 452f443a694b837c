from .blueprint import blueprint as blueprint
