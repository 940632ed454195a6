#include "app/document/document.hpp"

#include <csignal>
#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QElapsedTimer>
#include <QFile>
#include <QRegularExpression>
#include <QThread>

#include "core/job/trial.hpp"
#include "core/stages/back/trial.hpp"

namespace jig::app {
namespace {

constexpr std::size_t kHistory = 500;
constexpr int kOneStep = 700, kAutosaveAfter = 600;  // ms

QString base_name(const QString& recovery) {
    return recovery + "/" + QString::number(QCoreApplication::applicationPid());
}

}  // namespace

Document::Document(Shop shop, QString recovery, QObject* parent)
    : QObject(parent), shop_(std::make_shared<const Shop>(std::move(shop))), recovery_(std::move(recovery)) {
    autosave_timer_.setSingleShot(true);
    connect(&autosave_timer_, &QTimer::timeout, this, [this] {
        // Large meshes take a while to pack: not on the interface's thread.
        autosaves_.start([this, job = for_file(), path = path_, number = autosave_number_.load()] {
            autosave(job, path, number);
        });
    });
    autosaves_.setMaxThreadCount(1);
    saved_ = job_;
    worker_ = std::thread([this] { work(); });
}

Document::~Document() {
    autosaves_.waitForDone();
    {
        const std::lock_guard hold(lock_);
        leaving_ = true;
        if (running_) running_->stop();
    }
    wake_.notify_all();
    worker_.join();
}

QString Document::edit(const QString& name, const Json& patch) {
    try {
        replace(name, patched(job_, patch));
        return {};
    } catch (const InputError& e) {
        const auto why = QString::fromStdString(e.problem() + "; " + e.mend());
        emit refused(why);
        return why;
    }
}

bool Document::allowed(const Job& job) {
    try {
        check_ranges(job);
        return true;
    } catch (const InputError& e) {
        emit refused(QString::fromStdString(e.problem() + "; " + e.mend()));
        return false;
    }
}

void Document::replace(const QString& name, Job job) {
    if (job == job_ || !allowed(job)) return;
    push(name);
    job_ = std::move(job);
    after_change();
}

void Document::drag(const QString& name, Job job) {
    if (job == job_ || !allowed(job)) return;
    if (!dragging_) {
        last_edit_ = 0;
        push(name);
    }
    dragging_ = true;
    job_ = std::move(job);
    after_change();
}

void Document::push(const QString& name) {
    dragging_ = false;
    const auto now = QDateTime::currentMSecsSinceEpoch();
    // One word moved on and on is one step; things that are added one after the other are not.
    const bool goes_on = name.startsWith("set ") && !past_.empty() && past_.back().name == name &&
                         now - last_edit_ < kOneStep && future_.empty();
    last_edit_ = now;
    future_.clear();
    if (goes_on) return;
    past_.push_back({name, job_});
    if (past_.size() > kHistory) past_.erase(past_.begin());
}

void Document::undo() {
    if (past_.empty()) return;
    auto step = std::move(past_.back());
    past_.pop_back();
    future_.push_back({step.name, job_});
    job_ = std::move(step.job);
    last_edit_ = 0;
    dragging_ = false;
    after_change();
}

void Document::redo() {
    if (future_.empty()) return;
    auto step = std::move(future_.back());
    future_.pop_back();
    past_.push_back({step.name, job_});
    job_ = std::move(step.job);
    last_edit_ = 0;
    dragging_ = false;
    after_change();
}

void Document::start(Job job, const QString& path) {
    past_.clear();
    future_.clear();
    job_ = std::move(job);
    looked_at_.clear();
    findings_.trial = nullptr;  // another tool's
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        if (std::find(job_.looked_at.begin(), job_.looked_at.end(), kStages[s].key) != job_.looked_at.end())
            looked_at_.insert(static_cast<Stage>(s));
    }
    saved_ = job_;
    path_ = path;
    after_change();
}

void Document::look_at(Stage stage) {
    looked_at_.insert(stage);
}

Job Document::for_file() const {
    auto job = job_;
    job.looked_at.clear();
    for (const auto stage : looked_at_) job.looked_at.emplace_back(name_of(stage).key);
    return job;
}

void Document::open(const QString& path) {
    start(load_job(path.toStdString()), path);
}

void Document::save(const QString& path) {
    save_job(for_file(), path.toStdString());
    path_ = path;
    saved_ = job_;
    forget_autosave();
    emit changed();
}

void Document::set_shop(Shop shop) {
    shop_ = std::make_shared<const Shop>(std::move(shop));
    after_change();
}

void Document::end_drag() {
    if (!dragging_) return;
    dragging_ = false;
    wake();  // where the drag has ended is worth remembering
}

void Document::wake() {
    {
        const std::lock_guard hold(lock_);
        next_ = job_;
        next_shop_ = shop_;
        next_passing_ = dragging_;
        ++wanted_;
        if (running_) running_->stop();
    }
    wake_.notify_all();
}

void Document::after_change() {
    wake();
    if (!recovery_.isEmpty() && unsaved()) autosave_timer_.start(kAutosaveAfter);
    emit changed();
}

/// Figures first, then the tool tried out quickly and finely behind them. What a newer edit overtakes is
/// dropped; what was finished of it stays on the board.
void Document::work() {
    std::uint64_t done = 0;
    while (true) {
        Job job;
        std::shared_ptr<const Shop> shop;
        std::uint64_t number = 0;
        bool passing = false;
        auto progress = std::make_shared<Progress>();
        auto trying = std::make_shared<std::atomic<bool>>(false);
        {
            std::unique_lock hold(lock_);
            wake_.wait(hold, [&] { return leaving_ || wanted_ != done; });
            if (leaving_) return;
            job = next_;
            shop = next_shop_;
            number = wanted_;
            passing = next_passing_;
            progress = std::make_shared<Progress>([this, trying](double fraction, std::string_view doing) {
                const auto words = QString::fromUtf8(doing.data(), static_cast<qsizetype>(doing.size()));
                const bool trial = *trying;
                QMetaObject::invokeMethod(
                    this,
                    [this, fraction, words, trial] {
                        if (trial)
                            emit trial_progressed(std::min(0.99, fraction), words);
                        else
                            emit progressed(fraction, words);
                    },
                    Qt::QueuedConnection);
            });
            running_ = progress;
        }
        try {
            const auto sheet = board_->lay(std::move(job), std::move(shop), passing);
            for (const auto depth : {Depth::stages, Depth::quick, Depth::fine}) {
                *trying = depth != Depth::stages;
                auto findings = board_->work_out(sheet, depth, *progress);
                const bool last = depth == Depth::fine || (findings.trial && findings.trial->fine);
                QMetaObject::invokeMethod(
                    this,
                    [this, number, last, f = std::move(findings)]() mutable {
                        take(number, std::move(f), last);
                    },
                    Qt::QueuedConnection);
                if (last) break;
            }
        } catch (const Cancelled&) {
            // A newer edit has overtaken this run: its findings are not wanted any more.
        } catch (const std::exception& e) {
            const auto words = QString::fromUtf8(e.what());
            QMetaObject::invokeMethod(
                this, [this, words] { emit refused("The figures could not be worked out: " + words); },
                Qt::QueuedConnection);
        }
        done = number;
    }
}

void Document::take(std::uint64_t number, Findings findings, bool last) {
    if (number < wanted_) return;
    // Until the tool is tried out anew its last figures stay on screen, marked.
    const bool first = evaluated_ != number;
    const auto older = findings_.trial;
    findings_ = std::move(findings);
    if (first && !last && !findings_.trial && older && findings_.edge && findings_.edge->tool)
        findings_ = with_trial(findings_, job_, older, true);
    evaluated_ = number;
    if (last) {
        tried_ = number;
        emit trial_progressed(1, {});
    }
    emit evaluated();
}

bool Document::wait_evaluated(int milliseconds) {
    QElapsedTimer clock;
    clock.start();
    while (stale() && clock.elapsed() < milliseconds) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
        QThread::msleep(1);
    }
    return !stale();
}

bool Document::wait_tried(int milliseconds) {
    QElapsedTimer clock;
    clock.start();
    while (trying() && clock.elapsed() < milliseconds) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
        QThread::msleep(1);
    }
    return !trying();
}

void Document::autosave(const Job& job, const QString& path, int number) {
    if (recovery_.isEmpty()) return;
    try {
        const auto bytes = pack_job(job);
        const std::lock_guard hold(autosave_lock_);
        if (number != autosave_number_) return;  // saved or left in the meantime
        QDir().mkpath(recovery_);
        const auto base = base_name(recovery_);
        write_atomically(path.toStdString(), (base + ".origin").toStdString());
        write_atomically(bytes, (base + ".jigshell").toStdString());
    } catch (const InputError& e) {
        const auto words = QString::fromStdString("The work is not kept for recovery: " + e.problem());
        QMetaObject::invokeMethod(
            this, [this, words] { emit refused(words); }, Qt::QueuedConnection);
    }
}

void Document::autosave_now() {
    autosaves_.waitForDone();
    autosave(for_file(), path_, autosave_number_);
}

void Document::forget_autosave() {
    autosave_timer_.stop();
    if (recovery_.isEmpty()) return;
    const std::lock_guard hold(autosave_lock_);
    ++autosave_number_;
    QFile::remove(base_name(recovery_) + ".jigshell");
    QFile::remove(base_name(recovery_) + ".origin");
}

QStringList Document::leftovers(const QString& recovery) {
    QStringList out;
    for (const auto& file :
         QDir(recovery).entryInfoList({"*.jigshell"}, QDir::Files, QDir::Time | QDir::Reversed)) {
        bool number = false;
        const auto pid = file.completeBaseName().toLongLong(&number);
        const bool alive =
            number && (pid == QCoreApplication::applicationPid() || ::kill(static_cast<pid_t>(pid), 0) == 0);
        if (!alive) out << file.absoluteFilePath();
    }
    return out;
}

QString Document::origin_of(const QString& leftover) {
    QFile note(QString(leftover).replace(QRegularExpression("\\.jigshell$"), ".origin"));
    return note.open(QIODevice::ReadOnly) ? QString::fromUtf8(note.readAll()) : QString();
}

}  // namespace jig::app
