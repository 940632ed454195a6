// The schools of laminate beside each other, and the stacks that were sought.
#pragma once

#include <QScrollArea>

#include "app/theme/ink.hpp"
#include "core/job/schools.hpp"
#include "core/stages/shell/find_stack.hpp"

namespace jig::app {

class ShellSheet : public QScrollArea {
    Q_OBJECT
  public:
    explicit ShellSheet(QWidget* parent);
    void show_schools(std::vector<SchoolPlan> plans, const Job& job);
    void show_stacks(shell::Found found, const Job& job);
    void set_look(const Ink& ink, const Wording& wording);
    /// Says so where the sheet was worked out for a job that has changed since in what it is about.
    void follow(const Job& now);
    [[nodiscard]] bool is_old() const { return old_; }
    [[nodiscard]] const shell::Found& found() const { return found_; }

  signals:
    void close_wanted();
    void school_wanted(School school);
    void stack_wanted(const std::vector<Layer>& layers);
    /// The same sheet for the job as it is now.
    void renew_wanted(bool stacks);

  private:
    void rebuild();
    void build_schools(QWidget* page);
    void build_stacks(QWidget* page);

    std::vector<SchoolPlan> plans_;
    shell::Found found_;
    Job job_;
    bool stacks_ = false, old_ = false;
    int chosen_ = -1;
    const Ink* ink_;
    Wording wording_;
};

}  // namespace jig::app
