// What is kept of unsaved work, so that a crash costs nothing.
#pragma once

#include <functional>
#include <mutex>
#include <QDateTime>
#include <QList>

#include "app/document/hold.hpp"
#include "core/job/job_file.hpp"

namespace jig::app {

/// Work that an earlier run left behind.
struct Leftover {
    QString file;                ///< the kept job
    QString origin;              ///< the file that it belongs to; empty for a job that had none yet
    QString job;                 ///< its name
    Stage stage = Stage::brief;  ///< the one that was worked on
    QDateTime kept;
};

/// One job's kept copy in the recovery folder, under a name of its own that is held while the program lives.
/// May be called from several threads.
class Recovery {
  public:
    /// `folder` empty: nothing is kept.
    explicit Recovery(QString folder);

    [[nodiscard]] const QString& folder() const { return folder_; }
    /// Writes the job over what was kept of it, unless `wanted` says at the last moment that it has been
    /// overtaken. Throws InputError where the folder takes no file.
    void keep(const Job& job, const QString& origin, Stage stage, const std::function<bool()>& wanted);
    /// Takes what is kept away: it has been saved, or is not wanted.
    void forget();
    /// From now on `left` is this job's kept copy: it stays until the job has been saved. False where another
    /// program has taken it up meanwhile.
    bool adopt(const Leftover& left);

    /// What no living program holds, newest first.
    [[nodiscard]] static QList<Leftover> leftovers(const QString& folder);
    /// False where another program has it.
    static bool throw_away(const Leftover& left);

  private:
    QString folder_, base_;
    std::optional<Hold> hold_;
    std::mutex lock_;
};

}  // namespace jig::app
