from .blueprint import NAVIGATION as NAVIGATION
from .blueprint import blueprint as blueprint
