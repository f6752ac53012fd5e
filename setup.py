"""Compiles what every search spends its time in; everything else is in pyproject.toml."""

from Cython.Build import cythonize
from setuptools import setup

setup(
    ext_modules=cythonize("src/anchorline/core/**/*.pyx", build_dir="build"),
    options={"build_ext": {"parallel": 2}},
)
