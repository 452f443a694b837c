"""The web layer: pages and the board. Every feature folder has ``blueprint.py`` (a table of URLs) and ``views.py``;
its templates lie in ``templates/<feature>/<view>.html``.

``app``      the factory
``database`` one session per request, committed or rolled back in one place
``access``   who may come in; one loader per resource
``figures``  what the browser needs to draw a figure
"""
