// The builds of a part beside each other, and one in another cloth that is as stiff.
#pragma once

#include <QScrollArea>

#include "app/theme/ink.hpp"
#include "core/job/builds.hpp"
#include "core/stages/part/as_stiff.hpp"

class QComboBox;
class QLabel;
class QPushButton;

namespace jig::app {

class BuildsSheet : public QScrollArea {
    Q_OBJECT
  public:
    explicit BuildsSheet(QWidget* parent);
    void show_builds(std::vector<BuildPlan> plans, const Job& job, std::shared_ptr<const Shop> shop);
    void set_wording(const Wording& wording);
    /// Says so where the sheet was worked out for a job that has changed since.
    void follow(const Job& now);
    [[nodiscard]] bool is_old() const { return old_; }

  signals:
    void close_wanted();
    void renew_wanted();
    void build_wanted(const part::Build& build);
    /// To be kept under a name of its own.
    void keep_wanted(const part::Build& build);

  private:
    void rebuild();
    void lay_as_stiff(QWidget* page);
    void match();

    std::vector<BuildPlan> plans_;
    Job job_;
    std::shared_ptr<const Shop> shop_;
    bool old_ = false;
    QString like_, cloth_;  ///< what was chosen last
    std::optional<part::AsStiff> found_;
    QComboBox *measure_ = nullptr, *cloths_ = nullptr;
    QLabel* told_ = nullptr;
    QPushButton* keep_ = nullptr;
    Wording wording_;
};

}  // namespace jig::app
