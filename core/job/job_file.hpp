// The job on disk: a zip with job.json and the attached files (docs/file-format.md).
#pragma once

#include "core/job/job.hpp"

namespace jig {

/// Bytes of the zip, the same for the same job.
std::string pack_job(const Job& job);

/// Throws InputError naming `where` for damaged, foreign or newer files, and for zips that would unpack to
/// more than 1 GB or swell more than 300-fold.
Job unpack_job(const std::string& bytes, const std::string& where);

/// Reads *.jigshell, or a bare job.json as the demo jobs are kept.
Job load_job(const std::string& path);

/// Writes beside the file, flushes to disk, keeps the last good file as "NAME~" and renames. Throws
/// InputError where the folder cannot be written; the old file is then untouched.
void save_job(const Job& job, const std::string& path);

/// As save_job for any bytes, without keeping the old file. A link stays and what it points to is written;
/// permissions stay; a file that nobody may write to is refused.
void write_atomically(const std::string& bytes, const std::string& named);

}  // namespace jig
