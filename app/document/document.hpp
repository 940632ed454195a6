// The job on the bench: its history, its findings as they are renewed, its file.
#pragma once

#include <condition_variable>
#include <mutex>
#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <set>
#include <thread>

#include "core/job/evaluate.hpp"
#include "core/job/job_file.hpp"

namespace jig::app {

class Document : public QObject {
    Q_OBJECT
  public:
    /// `recovery` is the folder for autosaves; empty for none.
    Document(Shop shop, QString recovery, QObject* parent = nullptr);
    ~Document() override;

    [[nodiscard]] const Job& job() const { return job_; }
    [[nodiscard]] const Shop& shop() const { return *shop_; }
    /// The same, for work that goes on behind the window.
    [[nodiscard]] const std::shared_ptr<const Shop>& shared_shop() const { return shop_; }
    /// The last findings that were finished; `stale` while newer ones are on their way.
    [[nodiscard]] const Findings& findings() const { return findings_; }
    [[nodiscard]] bool stale() const { return evaluated_ != wanted_; }
    /// Whether the tool on trial is on its way: findings come twice or three times, better each time.
    [[nodiscard]] bool trying() const { return tried_ != wanted_; }
    /// Where findings are kept from edit to edit, for work that goes on behind the window.
    [[nodiscard]] const std::shared_ptr<JobBoard>& board() const { return board_; }
    /// Takes up what other work has put on the board.
    void look_again() { wake(); }
    [[nodiscard]] QString path() const { return path_; }
    [[nodiscard]] const QString& recovery() const { return recovery_; }
    [[nodiscard]] bool unsaved() const { return !(job_ == saved_); }

    /// Lays a merge patch over the job. Edits of the same name that follow within a moment become one step.
    /// Bad values leave the job as it is and are said through `refused`, and returned.
    QString edit(const QString& name, const Json& patch);
    void replace(const QString& name, Job job);
    /// One of many edits of a drag: all until `end_drag` are one step, however long it takes.
    void drag(const QString& name, Job job);
    void end_drag();
    [[nodiscard]] QString undo_name() const { return past_.empty() ? QString() : past_.back().name; }
    [[nodiscard]] QString redo_name() const { return future_.empty() ? QString() : future_.back().name; }
    void undo();
    void redo();

    /// A fresh job in place of this one; history is cleared. `path` empty for one that has no file yet.
    void start(Job job, const QString& path);
    /// Throw InputError.
    void open(const QString& path);
    void save(const QString& path);
    void set_shop(Shop shop);
    /// Marks a stage as looked at. Kept with the job's file, but no step of undo and no change to be saved.
    void look_at(Stage stage);
    [[nodiscard]] const std::set<Stage>& looked_at() const { return looked_at_; }

    /// Leftovers of programs that ended without saving: files to offer, oldest first.
    [[nodiscard]] static QStringList leftovers(const QString& recovery);
    /// Where a leftover belonged; empty for a job that was never saved.
    [[nodiscard]] static QString origin_of(const QString& leftover);
    /// Writes the autosave now and waits for it; for leaving and for tests.
    void autosave_now();
    void forget_autosave();

    /// Waits until the findings belong to the job, `milliseconds` at most.
    bool wait_evaluated(int milliseconds);
    /// The same for the tool on trial.
    bool wait_tried(int milliseconds);

  signals:
    void changed();
    void evaluated();
    void progressed(double fraction, const QString& doing);
    /// The tool's trial goes on behind the findings; 1 where it has ended.
    void trial_progressed(double fraction, const QString& doing);
    void refused(const QString& message);

  private:
    struct Step {
        QString name;
        Job job;
    };
    /// The job as it goes into a file: with what has been looked at.
    [[nodiscard]] Job for_file() const;
    /// Says what stands against a job whose file could not be read again.
    bool allowed(const Job& job);
    void push(const QString& name);
    void after_change();
    void wake();
    void work();
    void autosave(const Job& job, const QString& path, int number);
    void take(std::uint64_t number, Findings findings, bool last);

    std::shared_ptr<const Shop> shop_;
    QString recovery_, path_;
    Job job_, saved_;
    std::set<Stage> looked_at_;
    Findings findings_;
    std::shared_ptr<JobBoard> board_ = std::make_shared<JobBoard>();
    std::vector<Step> past_, future_;
    qint64 last_edit_ = 0;
    bool dragging_ = false;
    QTimer autosave_timer_;
    QThreadPool autosaves_;
    std::mutex autosave_lock_;
    std::atomic<int> autosave_number_{0};

    // Shared with the worker under `lock_`.
    std::mutex lock_;
    std::condition_variable wake_;
    Job next_;
    std::shared_ptr<const Shop> next_shop_;
    bool next_passing_ = false;
    std::uint64_t wanted_ = 0, evaluated_ = 0, tried_ = 0;
    std::shared_ptr<Progress> running_;
    bool leaving_ = false;

    std::thread worker_;
};

}  // namespace jig::app
