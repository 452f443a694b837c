from .blueprint import FROM_ELSEWHERE as FROM_ELSEWHERE
from .blueprint import blueprint as blueprint
