#include "app/document/hold.hpp"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <utility>

#include <QDateTime>
#include <QFile>
#include <QFileInfo>
#include <QLocale>
#include <QSysInfo>

namespace jig::app {
namespace {

QString note_of(const QString& file) {
    const QFileInfo info(file);
    return info.absolutePath() + "/." + info.fileName() + ".held";
}

/// Whether the open note is still the one in the folder: another owner may have taken it away meanwhile.
bool still_there(int handle, const QByteArray& note) {
    struct stat open {
    }, named{};
    return ::fstat(handle, &open) == 0 && ::stat(note.constData(), &named) == 0 &&
           open.st_ino == named.st_ino && open.st_dev == named.st_dev;
}

}  // namespace

QString real_file(const QString& path) {
    const auto real = QFileInfo(path).canonicalFilePath();
    return real.isEmpty() ? QFileInfo(path).absoluteFilePath() : real;
}

Hold::Hold(QString file, QString note, int handle)
    : file_(std::move(file)), note_(std::move(note)), handle_(handle) {}

Hold::Hold(Hold&& other) noexcept
    : file_(std::move(other.file_)),
      note_(std::move(other.note_)),
      handle_(std::exchange(other.handle_, -1)) {}

Hold& Hold::operator=(Hold&& other) noexcept {
    if (this == &other) return *this;
    let_go();
    file_ = std::move(other.file_);
    note_ = std::move(other.note_);
    handle_ = std::exchange(other.handle_, -1);
    return *this;
}

Hold::~Hold() {
    let_go();
}

void Hold::let_go() {
    if (handle_ < 0) return;
    // First the note, then the lock: who waits for the lock sees that its note is gone and begins anew.
    ::unlink(QFile::encodeName(note_).constData());
    ::close(std::exchange(handle_, -1));
}

std::optional<Hold> Hold::take(const QString& file, const QString& words) {
    const auto real = real_file(file), note = note_of(real);
    const auto name = QFile::encodeName(note);
    for (int tries = 0; tries < 20; ++tries) {
        const int handle = ::open(name.constData(), O_RDWR | O_CREAT | O_CLOEXEC, 0644);
        if (handle < 0) return Hold(real, note, -1);
        if (::flock(handle, LOCK_EX | LOCK_NB) != 0) {
            const bool taken = errno == EWOULDBLOCK;
            ::close(handle);
            if (taken) return std::nullopt;
            return Hold(real, note, -1);  // a file system without locks
        }
        if (!still_there(handle, name)) {
            ::close(handle);
            continue;
        }
        const auto text = words.toUtf8();
        if (::ftruncate(handle, 0) == 0)
            static_cast<void>(!::write(handle, text.constData(), static_cast<std::size_t>(text.size())));
        return Hold(real, note, handle);
    }
    return std::nullopt;
}

QString Hold::holder(const QString& file) {
    const auto note = note_of(real_file(file));
    const int handle = ::open(QFile::encodeName(note).constData(), O_RDONLY | O_CLOEXEC);
    if (handle < 0) return {};
    const bool free = ::flock(handle, LOCK_SH | LOCK_NB) == 0;
    QString words;
    if (!free) {
        QFile reader(note);
        words = reader.open(QIODevice::ReadOnly) ? QString::fromUtf8(reader.read(400)) : QString();
        if (words.isEmpty()) words = "somebody";
    }
    ::close(handle);
    return words;
}

QString Hold::ourselves() {
    const auto user = qEnvironmentVariable("USER", "somebody");
    return QString("%1 on %2 since %3")
        .arg(user, QSysInfo::machineHostName(), QDateTime::currentDateTime().toString("d MMM, HH:mm"));
}

}  // namespace jig::app
