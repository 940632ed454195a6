#include "app/document/document.hpp"

#include <csignal>
#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QElapsedTimer>
#include <QFile>
#include <QRegularExpression>
#include <QThread>

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

void Document::edit(const QString& name, const Json& patch) {
    try {
        replace(name, patched(job_, patch));
    } catch (const InputError& e) {
        emit refused(QString::fromStdString(e.problem() + "; " + e.mend()));
    }
}

void Document::replace(const QString& name, Job job) {
    if (job == job_) return;
    push(name);
    job_ = std::move(job);
    after_change();
}

void Document::drag(const QString& name, Job job) {
    if (job == job_) return;
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
    const bool goes_on =
        !past_.empty() && past_.back().name == name && now - last_edit_ < kOneStep && future_.empty();
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

void Document::after_change() {
    {
        const std::lock_guard hold(lock_);
        next_ = job_;
        next_shop_ = shop_;
        ++wanted_;
        if (running_) running_->stop();
    }
    wake_.notify_all();
    if (suggestion_) {
        // A pitch and feet that were taken keep what was tried; anything else overtakes it.
        auto a = job_, b = suggested_for_;
        a.back.pitch = b.back.pitch;
        a.back.feet.inset = b.back.feet.inset;
        a.cut = b.cut;
        if (!(a == b)) suggestion_.reset();
    }
    if (!recovery_.isEmpty() && unsaved()) autosave_timer_.start(kAutosaveAfter);
    emit changed();
}

void Document::try_finely(bool finely) {
    {
        const std::lock_guard hold(lock_);
        if (finely_ == finely) return;
        finely_ = finely;
        ++wish_;
    }
    wake_.notify_all();
}

/// The quick answer first, the fine one behind it. What an earlier trial has and nothing changed is taken
/// over.
void Document::try_out(const Job& job, const Findings& findings, const Shop& shop, std::uint64_t number,
                       std::uint64_t wish, Progress& progress) {
    bool finely = false;
    {
        const std::lock_guard hold(lock_);
        finely = finely_;
    }
    const auto tell = [&](const std::shared_ptr<const back::Trial>& trial, bool last) {
        auto whole = with_trial(findings, job, trial);
        QMetaObject::invokeMethod(
            this,
            [this, number, wish, last, f = std::move(whole)]() mutable {
                if (number < wanted_) return;
                findings_ = std::move(f);
                if (last) {
                    tried_ = number + wish;
                    emit trial_progressed(1, {});
                }
                emit evaluated();
            },
            Qt::QueuedConnection);
    };
    try {
        auto trial =
            last_trial_.trial != nullptr && same_trial(last_trial_.job, last_trial_.findings, job, findings)
                ? last_trial_.trial
                : nullptr;
        if (trial == nullptr) {
            trial = try_tool(job, findings, shop, Fineness::quick, nullptr, meshes_, progress);
            last_trial_ = {job, findings, trial};
        }
        const bool fine_wanted = finely && !trial->fine;
        tell(trial, !fine_wanted);
        if (!fine_wanted) return;
        auto fine = try_tool(job, findings, shop, Fineness::fine, trial.get(), meshes_, progress);
        last_trial_ = {job, findings, fine};
        tell(fine, true);
    } catch (const InputError& e) {
        // The stages say what stops them; a mesh that fails is said here.
        const auto words = QString::fromStdString("The tool was not tried out: " + worded(e.problem()));
        const bool stages_fine = findings.back && findings.edge && findings.edge->tool;
        QMetaObject::invokeMethod(
            this,
            [this, number, wish, words, stages_fine] {
                if (number < wanted_) return;
                tried_ = number + wish;
                if (stages_fine) emit refused(words);
                emit trial_progressed(1, {});
            },
            Qt::QueuedConnection);
    }
}

void Document::work() {
    Evaluated before;
    std::shared_ptr<const Shop> before_shop;
    std::uint64_t done = 0, wished = 0;
    while (true) {
        Job job;
        std::shared_ptr<const Shop> shop;
        std::uint64_t number = 0, wish = 0;
        std::shared_ptr<Progress> progress;
        auto trying = std::make_shared<std::atomic<bool>>(false);
        {
            std::unique_lock hold(lock_);
            wake_.wait(hold, [&] { return leaving_ || wanted_ != done || wish_ != wished; });
            if (leaving_) return;
            job = next_;
            shop = next_shop_;
            number = wanted_;
            wish = wish_;
            if (shop == nullptr) {
                wished = wish;
                continue;
            }
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
            auto findings = evaluate(job, *shop, before_shop == shop ? &before : nullptr, *progress);
            before = {job, findings};
            if (before_shop != shop) last_trial_ = {};
            before_shop = shop;
            if (number != done)
                QMetaObject::invokeMethod(
                    this,
                    [this, number,
                     f = with_trial(findings, job, last_trial_.trial,
                                    !same_trial(last_trial_.job, last_trial_.findings, job,
                                                findings))]() mutable { take(number, std::move(f)); },
                    Qt::QueuedConnection);
            *trying = true;
            try_out(job, findings, *shop, number, wish, *progress);
        } catch (const Cancelled&) {
            // A newer edit has overtaken this run: its findings are not wanted any more.
        } catch (const std::exception& e) {
            const auto words = QString::fromUtf8(e.what());
            QMetaObject::invokeMethod(
                this, [this, words] { emit refused("The figures could not be worked out: " + words); },
                Qt::QueuedConnection);
        }
        done = number;
        wished = wish;
    }
}

void Document::take(std::uint64_t number, Findings findings) {
    if (number < wanted_) return;
    findings_ = std::move(findings);
    evaluated_ = number;
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

void Document::suggest(back::Suggestion found) {
    suggestion_ = std::move(found);
    suggested_for_ = job_;
    emit evaluated();
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
