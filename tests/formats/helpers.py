"""Files as they come, by their bytes; a text is one in UTF-8."""

from knollstack.formats import importing


def bytes_of(file):
    return file if isinstance(file, bytes) else file.encode()


def preview(name, file, target):
    return importing.preview(name, bytes_of(file), target)


def take(name, file, *others):
    return importing.take(name, bytes_of(file), *others)
