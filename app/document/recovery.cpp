#include "app/document/recovery.hpp"

#include <QDir>
#include <QFile>
#include <QUuid>

#include "core/science/mesh/stl.hpp"

namespace jig::app {
namespace {

QString note_beside(QString file) {
    return file.replace(file.lastIndexOf(".jigshell"), 9, ".note");
}

void remove_both(const QString& file) {
    QFile::remove(file);
    QFile::remove(note_beside(file));
}

}  // namespace

Recovery::Recovery(QString folder) : folder_(std::move(folder)) {}

void Recovery::keep(const Job& job, const QString& origin, Stage stage, const std::function<bool()>& wanted) {
    if (folder_.isEmpty()) return;
    const auto bytes = pack_job(job);
    Json note;
    note["origin"] = origin.toStdString();
    note["job"] = job.brief.job;
    note["stage"] = name_of(stage).key;
    const std::lock_guard hold(lock_);
    if (!wanted()) return;
    QDir().mkpath(folder_);
    if (base_.isEmpty()) base_ = folder_ + "/" + QUuid::createUuid().toString(QUuid::WithoutBraces);
    if (!hold_) hold_ = Hold::take(base_ + ".jigshell", Hold::ourselves());
    write_atomically(note.dump(), note_beside(base_ + ".jigshell").toStdString());
    write_atomically(bytes, (base_ + ".jigshell").toStdString());
}

void Recovery::forget() {
    const std::lock_guard hold(lock_);
    if (base_.isEmpty()) return;
    remove_both(base_ + ".jigshell");
    hold_.reset();
    base_.clear();
}

bool Recovery::adopt(const Leftover& left) {
    auto taken = Hold::take(left.file, Hold::ourselves());
    if (!taken) return false;
    const std::lock_guard hold(lock_);
    if (!base_.isEmpty()) remove_both(base_ + ".jigshell");
    hold_ = std::move(taken);
    base_ = left.file.left(left.file.lastIndexOf(".jigshell"));
    return true;
}

QList<Leftover> Recovery::leftovers(const QString& folder) {
    QList<Leftover> out;
    if (folder.isEmpty()) return out;
    for (const auto& info : QDir(folder).entryInfoList({"*.jigshell"}, QDir::Files, QDir::Time)) {
        const auto file = info.absoluteFilePath();
        if (!Hold::holder(file).isEmpty()) continue;
        Leftover left{file, {}, "a job", Stage::brief, info.lastModified()};
        try {
            const auto note = parse_json("note", read_file(note_beside(file).toStdString()));
            left.origin = QString::fromStdString(note.value("origin", ""));
            left.job = QString::fromStdString(note.value("job", "a job"));
            for (std::size_t s = 0; s < kStages.size(); ++s) {
                if (note.value("stage", "") == kStages[s].key) left.stage = static_cast<Stage>(s);
            }
        } catch (const std::exception&) {
            // Without its note it is still somebody's work.
        }
        out << left;
    }
    return out;
}

bool Recovery::throw_away(const Leftover& left) {
    const auto taken = Hold::take(left.file, Hold::ourselves());
    if (!taken) return false;
    remove_both(left.file);
    return true;
}

}  // namespace jig::app
