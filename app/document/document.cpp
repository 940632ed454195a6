#include "app/document/document.hpp"

#include <sys/stat.h>

#include <QCoreApplication>
#include <QDateTime>
#include <QElapsedTimer>
#include <QFile>
#include <QFileInfo>
#include <QThread>
#include <utility>

#include "app/document/behind.hpp"
#include "app/document/seldom.hpp"
#include "core/job/trial.hpp"
#include "core/stages/back/trial.hpp"

namespace jig::app {
namespace {

constexpr std::size_t kHistory = 500;
constexpr int kOneStep = 700, kAutosaveAfter = 600;  // ms

/// The stages of a list of keys.
std::set<Stage> stages_of(const std::vector<std::string>& keys) {
    std::set<Stage> out;
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        if (std::find(keys.begin(), keys.end(), kStages[s].key) != keys.end())
            out.insert(static_cast<Stage>(s));
    }
    return out;
}

std::vector<std::string> keys_of(const std::set<Stage>& stages) {
    std::vector<std::string> out;
    for (const auto stage : stages) out.emplace_back(name_of(stage).key);
    return out;
}

}  // namespace

Document::Document(Shop shop, QString recovery, QObject* parent, std::shared_ptr<JobBoard> board)
    : QObject(parent),
      shop_(std::make_shared<const Shop>(std::move(shop))),
      recovery_(std::move(recovery)),
      board_(board ? std::move(board) : std::make_shared<JobBoard>()) {
    autosave_timer_.setSingleShot(true);
    connect(&autosave_timer_, &QTimer::timeout, this, [this] {
        // Large meshes take a while to pack: not on the interface's thread.
        autosaves_.start(
            [this, job = for_file(), path = path_, stage = last_stage_, number = ++autosave_number_] {
                if (number == autosave_number_) autosave(job, path, stage, number);
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
    step(past_, future_);
}

void Document::redo() {
    step(future_, past_);
}

void Document::step(std::vector<Step>& from, std::vector<Step>& to) {
    if (from.empty()) return;
    auto next = std::move(from.back());
    from.pop_back();
    to.push_back({next.name, job_});
    const auto stages = stages_changed(job_, next.job);
    job_ = std::move(next.job);
    last_edit_ = 0;
    dragging_ = false;
    after_change();
    emit stepped(stages);
}

void Document::start(Job job, const QString& path) {
    past_.clear();
    future_.clear();
    ++job_number_;
    job_ = std::move(job);
    looked_at_ = stages_of(job_.looked_at);
    settled_ = saved_settled_ = stages_of(job_.settled);
    settled_figures_.clear();
    findings_.trial = nullptr;  // another tool's
    findings_.part_trial = nullptr;
    saved_ = job_;
    forget_autosave();
    hold_file(path);
    after_change();
}

/// Takes the file for this window, or leaves the job without one where somebody else has it.
void Document::hold_file(const QString& path) {
    const bool same = hold_ && !path.isEmpty() && hold_->file() == real_file(path);
    if (!same) hold_.reset();
    path_ = path;
    stamp_ = stamp_of(path);
    if (path.isEmpty() || same) return;
    hold_ = Hold::take(path, Hold::ourselves());
    if (hold_) return;
    path_.clear();
    emit refused(QString("%1 is open elsewhere (%2): this is a copy. Save it under another name.")
                     .arg(QFileInfo(path).fileName(), Hold::holder(path)));
}

Document::Stamp Document::stamp_of(const QString& path) {
    struct stat seen {};
    if (path.isEmpty() || ::stat(QFile::encodeName(path).constData(), &seen) != 0) return {};
    return {true, seen.st_ino, seen.st_size, seen.st_mtim.tv_sec, seen.st_mtim.tv_nsec};
}

bool Document::changed_on_disk() const {
    const auto now = stamp_of(path_);
    return now.there && !(now == stamp_);
}

bool Document::unsaved() const {
    if (settled_ != saved_settled_) return true;
    if (job_ == saved_) return false;
    auto as_saved = job_;
    as_saved.cut = saved_.cut;
    return !(as_saved == saved_);
}

void Document::look_at(Stage stage) {
    looked_at_.insert(stage);
    last_stage_ = stage;
}

void Document::settle(Stage stage, bool settled) {
    if (settled) {
        settled_.insert(stage);
        // Figures that are still on their way are those that are settled.
        settled_figures_.erase(stage);
        if (!stale() && !trying()) settled_figures_[stage] = findings_.figures(stage);
    } else {
        settled_.erase(stage);
    }
    if (!recovery().isEmpty() && unsaved() && !autosave_timer_.isActive())
        autosave_timer_.start(kAutosaveAfter);
    emit changed();
}

void Document::compare_settled() {
    const auto before = settled_;
    for (const auto stage : before) {
        const auto& now = findings_.figures(stage);
        const auto known = settled_figures_.find(stage);
        if (known == settled_figures_.end())
            settled_figures_[stage] = now;  // as the file has it
        else if (known->second != now)
            settled_.erase(stage);
    }
    if (before != settled_) emit changed();
}

Job Document::for_file() const {
    auto job = job_;
    job.looked_at = keys_of(looked_at_);
    job.settled = keys_of(settled_);
    return job;
}

void Document::open(const QString& path) {
    start(load_job(path.toStdString()), path);
}

void Document::save(const QString& path, bool over) {
    const bool same = !path_.isEmpty() && real_file(path) == real_file(path_);
    if (same && !over && changed_on_disk())
        throw InputError(path.toStdString(), "something else has changed this file since it was opened here",
                         "save under another name, or say that it is to be written over");
    if (!same) {
        auto taken = Hold::take(path, Hold::ourselves());
        if (!taken)
            throw InputError(path.toStdString(),
                             "it is open elsewhere (" + Hold::holder(path).toStdString() + ")",
                             "save under another name");
        save_job(for_file(), path.toStdString());
        hold_ = std::move(taken);
    } else {
        save_job(for_file(), path.toStdString());
    }
    path_ = path;
    stamp_ = stamp_of(path);
    saved_ = job_;
    saved_settled_ = settled_;
    forget_autosave();
    emit changed();
}

void Document::take_up(const Leftover& left) {
    auto job = load_job(left.file.toStdString());
    const bool has_file = !left.origin.isEmpty() && QFileInfo::exists(left.origin);
    auto before = has_file ? load_job(left.origin.toStdString()) : Job{};
    if (!Hold::holder(left.file).isEmpty())
        throw InputError(left.file.toStdString(), "another window has taken this work up",
                         "look for it there");
    start(std::move(before), has_file ? left.origin : QString());
    if (!recovery_.adopt(left))
        emit refused("Another window has taken this work up in the same moment: this is a copy of it.");
    looked_at_ = stages_of(job.looked_at);
    settled_ = stages_of(job.settled);
    job.looked_at = job_.looked_at;
    job.settled = job_.settled;
    replace("take up kept work", std::move(job));
    if (!unsaved()) recovery_.forget();  // its file has it all
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
        next_job_number_ = job_number_;
        next_shop_ = shop_;
        next_passing_ = dragging_;
        ++wanted_;
        if (running_) running_->stop();
    }
    wake_.notify_all();
}

void Document::after_change() {
    wake();
    // Edits that follow each other without a pause do not put it off.
    if (!recovery().isEmpty() && unsaved()) {
        if (!autosave_timer_.isActive()) autosave_timer_.start(kAutosaveAfter);
    } else {
        forget_autosave();  // undone to what the file holds
    }
    emit changed();
}

/// Figures first, then the tool tried out quickly and finely behind them. What a newer edit overtakes is
/// dropped; what was finished of it stays on the board.
void Document::work() {
    go_behind();
    std::uint64_t done = 0;
    int glanced_at = 0;
    while (true) {
        Job job;
        int job_number = 0;
        std::shared_ptr<const Shop> shop;
        std::uint64_t number = 0;
        bool passing = false, tries = true;
        auto progress = std::make_shared<Progress>();
        auto trying = std::make_shared<std::atomic<bool>>(false);
        {
            std::unique_lock hold(lock_);
            wake_.wait(hold, [&] { return leaving_ || wanted_ != done; });
            if (leaving_) return;
            job = next_;
            job_number = next_job_number_;
            shop = next_shop_;
            number = wanted_;
            passing = next_passing_;
            tries = tries_;
            progress = std::make_shared<Progress>(
                [this, trying, seldom = std::make_shared<Seldom>()](double fraction, std::string_view doing) {
                    if (!seldom->due()) return;
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
            // A job that is new here shows itself before it is worked out.
            if (std::exchange(glanced_at, job_number) != job_number) {
                auto glance = board_->glance(sheet, *progress);
                QMetaObject::invokeMethod(
                    this,
                    [this, number, f = std::move(glance)] {
                        if (number == wanted_ && stale() && f.shape) emit glimpsed(f);
                    },
                    Qt::QueuedConnection);
            }
            for (const auto depth : {Depth::stages, Depth::quick, Depth::fine}) {
                *trying = depth != Depth::stages;
                auto findings = board_->work_out(sheet, depth, *progress);
                const bool last = !tries || depth == Depth::fine || findings.finest;
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
    // Large ones take a while to take apart: not on the interface thread.
    letting_go_.start([old = std::move(findings_)] {});
    findings_ = std::move(findings);
    if (first && !last && !findings_.trial && older && findings_.edge && findings_.edge->tool)
        findings_ = with_trial(findings_, job_, older, true);
    evaluated_ = number;
    if (last) {
        tried_ = number;
        emit trial_progressed(1, {});
        compare_settled();
    }
    emit evaluated();
}

void Document::try_by_itself(bool tries) {
    {
        const std::lock_guard hold(lock_);
        if (tries_ == tries) return;
        tries_ = tries;
    }
    wake();
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

void Document::autosave(const Job& job, const QString& path, Stage stage, int number) {
    try {
        recovery_.keep(job, path, stage, [this, number] { return number == autosave_number_; });
    } catch (const std::exception& e) {
        const auto words = QString("The work is not kept for recovery: ") + e.what();
        QMetaObject::invokeMethod(
            this, [this, words] { emit refused(words); }, Qt::QueuedConnection);
    }
}

void Document::autosave_now() {
    const int number = ++autosave_number_;
    autosaves_.waitForDone();
    autosave(for_file(), path_, last_stage_, number);
}

void Document::forget_autosave() {
    autosave_timer_.stop();
    ++autosave_number_;
    recovery_.forget();
}

}  // namespace jig::app
