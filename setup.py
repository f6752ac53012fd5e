"""Compiles what every search spends its time in; everything else is in pyproject.toml."""

from Cython.Build import cythonize
from setuptools import Extension, setup

# Without debugging symbols, which are most of what a compiler writes and take most of its time.
_MODULES = Extension("*", ["src/anchorline/core/**/*.pyx"], extra_compile_args=["-g0"])

setup(
    ext_modules=cythonize([_MODULES], build_dir="build", nthreads=2),
    options={"build_ext": {"parallel": 2}},
)
