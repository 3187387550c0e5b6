"""Several of the open files in one archive (zip), and read from one."""

import io
import json
import zipfile
import zlib
from collections.abc import Mapping, Sequence
from typing import Any, Final

from kelbrast.core.errors import BadInput
from kelbrast.documents.common.fields import file_name
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import LARGEST_FILE, read_job_file, to_job

MOST_FILES: Final = 2000
LARGEST_UNPACKED: Final = 50_000_000  # bytes
_JOB: Final = ".job.json"
# Damage shows itself in the directory, in what is packed, at the end or in a name; what is locked, or packed in a way that is
# not known here, is a RuntimeError.
_UNREADABLE: Final = (zipfile.BadZipFile, zlib.error, EOFError, ValueError, RuntimeError, OSError)


def jobs_archive(jobs: Sequence[Mapping[str, Any]]) -> bytes:
    """The job documents, each under the name of its job; two of one name have a number."""
    out, names = io.BytesIO(), set[str]()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for job in jobs:
            plain = file_name(str(job.get("title", "")))
            name, at = plain, 2
            while name in names:
                name, at = f"{plain}-{at}", at + 1
            names.add(name)
            archive.writestr(name + _JOB, json.dumps(job, indent=2, ensure_ascii=False) + "\n")
    return out.getvalue()


def read_jobs_archive(data: bytes) -> list[JobFile]:
    """Every job file of an archive, all of them or none; what else is in it is passed over.

    Raises:
        BadInput: it is no archive, a file in it is too large or too many, or a job file has faults, each named with its file.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            inside = [zip_info for zip_info in archive.infolist() if zip_info.filename.endswith(_JOB)]
            if len(inside) > MOST_FILES:
                raise BadInput.one("archive", f"has more than {MOST_FILES} job files")
            for zip_info in inside:
                if zip_info.file_size > LARGEST_FILE:
                    raise BadInput.one("archive", f"{zip_info.filename} is larger than a job file may be")
            if sum(zip_info.file_size for zip_info in inside) > LARGEST_UNPACKED:
                raise BadInput.one("archive", f"holds more than {LARGEST_UNPACKED // 1_000_000} MB of job files")
            texts = [(zip_info.filename, archive.read(zip_info)) for zip_info in inside]
    except _UNREADABLE as problem:
        raise BadInput.one("archive", f"is not an archive that can be read: {problem}") from None
    if not texts:
        raise BadInput.one("archive", f"has no job files in it (their names end in {_JOB})")
    return [_read(name, text) for name, text in texts]


def _read(name: str, text: bytes) -> JobFile:
    try:
        job = read_job_file(text)
        to_job(job)
    except BadInput as bad:
        raise BadInput.one("archive", f"{name}: {bad}") from None
    return job
