// The job on the bench: its history, its findings as they are renewed, its file.
#pragma once

#include <sys/types.h>
#include <condition_variable>
#include <mutex>
#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <set>
#include <thread>

#include "app/document/recovery.hpp"
#include "core/job/evaluate.hpp"

namespace jig::app {

class Document : public QObject {
    Q_OBJECT
  public:
    /// `recovery` is the folder for autosaves; empty for none. `board` is one that others work on too; none
    /// for its own.
    Document(Shop shop, QString recovery, QObject* parent = nullptr, std::shared_ptr<JobBoard> board = {});
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
    /// Whether tool and part are tried out behind every edit, as they are unless told otherwise. Without it
    /// the findings end with what stages say by themselves.
    void try_by_itself(bool tries);
    /// Takes up what other work has put on the board.
    void look_again() { wake(); }
    [[nodiscard]] QString path() const { return path_; }
    [[nodiscard]] const QString& recovery() const { return recovery_.folder(); }
    /// Where the section is cut is kept with the job, but is nothing that would have to be saved.
    [[nodiscard]] bool unsaved() const;
    /// Counts the jobs that have been on this bench, so that work that comes home knows whose it is.
    [[nodiscard]] int job_number() const { return job_number_; }

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

    /// A fresh job in place of this one; history is cleared. `path` empty for one that has no file yet. A
    /// file that somebody else has is not taken: the job is a copy without a file then, and `refused` says
    /// so.
    void start(Job job, const QString& path);
    /// Throws InputError.
    void open(const QString& path);
    /// Throws InputError, also where somebody else has the file, and where it was changed on disk since it
    /// was opened and `over` does not say that this is to be written over.
    void save(const QString& path, bool over = false);
    /// Whether something else wrote to the job's file since it was opened or saved here.
    [[nodiscard]] bool changed_on_disk() const;
    void set_shop(Shop shop);
    /// Marks a stage as looked at. Kept with the job's file, but no step of undo and no change to be saved.
    void look_at(Stage stage);
    [[nodiscard]] const std::set<Stage>& looked_at() const { return looked_at_; }
    /// The maker's own tick behind a stage. It goes when the stage's choices or figures change.
    void settle(Stage stage, bool settled);
    [[nodiscard]] const std::set<Stage>& settled() const { return settled_; }

    /// Puts a leftover on the bench as an edit of its file, unsaved. It stays where it is until it has been
    /// saved. Throws InputError; what was on the bench is then still there.
    void take_up(const Leftover& left);
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
    /// The shape of a job that has just been opened, long before its findings.
    void glimpsed(const jig::Findings& shape);
    void progressed(double fraction, const QString& doing);
    /// The tool's trial goes on behind the findings; 1 where it has ended.
    void trial_progressed(double fraction, const QString& doing);
    void refused(const QString& message);
    /// Undo or redo changed these stages.
    void stepped(const std::vector<jig::Stage>& stages);

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
    void step(std::vector<Step>& from, std::vector<Step>& to);
    void after_change();
    void wake();
    void work();
    void autosave(const Job& job, const QString& path, Stage stage, int number);
    /// Opens the ticks of stages whose figures are not those that were settled.
    void compare_settled();
    void hold_file(const QString& path);
    void take(std::uint64_t number, Findings findings, bool last);

    std::shared_ptr<const Shop> shop_;
    Recovery recovery_;
    QString path_;
    std::optional<Hold> hold_;
    struct Stamp {
        bool there = false;
        ino_t node = 0;
        off_t size = 0;
        long seconds = 0, nanoseconds = 0;
        bool operator==(const Stamp&) const = default;
    };
    [[nodiscard]] static Stamp stamp_of(const QString& path);
    Stamp stamp_;
    Job job_, saved_;
    int job_number_ = 0;
    std::set<Stage> looked_at_, settled_, saved_settled_;
    Stage last_stage_ = Stage::brief;
    std::map<Stage, std::vector<Figure>> settled_figures_;
    Findings findings_;
    std::shared_ptr<JobBoard> board_;
    std::vector<Step> past_, future_;
    qint64 last_edit_ = 0;
    bool dragging_ = false;
    QTimer autosave_timer_;
    QThreadPool autosaves_;
    QThreadPool letting_go_;               ///< of findings that newer ones have replaced
    std::atomic<int> autosave_number_{0};  ///< of the newest: what it overtakes is not written

    // Shared with the worker under `lock_`.
    std::mutex lock_;
    std::condition_variable wake_;
    Job next_;
    int next_job_number_ = 0;
    std::shared_ptr<const Shop> next_shop_;
    bool next_passing_ = false, tries_ = true;
    std::uint64_t wanted_ = 0, evaluated_ = 0, tried_ = 0;
    std::shared_ptr<Progress> running_;
    bool leaving_ = false;

    std::thread worker_;
};

}  // namespace jig::app
