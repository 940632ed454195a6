// The one window.
#pragma once

#include <QMainWindow>

#include "app/charts/charts.hpp"
#include "app/document/document.hpp"
#include "app/ribbon/ribbon.hpp"
#include "app/slip/slip.hpp"
#include "app/stages/plug/routes_sheet.hpp"
#include "app/stages/shell/shell_sheet.hpp"
#include "app/stand/stand.hpp"
#include "app/window/errand.hpp"
#include "app/window/exports.hpp"
#include "app/window/job_card.hpp"
#include "app/window/palette.hpp"
#include "core/stages/back/trial.hpp"

class QLabel;
class QProgressBar;
class QPushButton;
class QStackedWidget;
class QToolButton;

namespace jig::app {

class MainWindow : public QMainWindow {
    Q_OBJECT
  public:
    explicit MainWindow(Shop shop, QString recovery);

    [[nodiscard]] Document& document() { return *document_; }
    [[nodiscard]] Stand& stand() { return *stand_; }
    [[nodiscard]] Ribbon& ribbon() { return *ribbon_; }
    [[nodiscard]] Slip& slip() { return *slip_; }
    [[nodiscard]] JobCard& job_card() { return *card_; }
    [[nodiscard]] const Wording& wording() const { return wording_; }

    /// Opens the word at a JSON pointer in its own stage.
    void show_word(const QString& path);
    void show_stage(Stage stage);
    void set_light(Light light);
    void set_wording(const Wording& wording);
    /// Offers what an earlier run left behind, in a bar under the head; true where there was something.
    bool offer_leftovers();
    /// Says something in the bar at the foot, for a while.
    void say(const QString& message);

    /// The work behind the menu, without file dialogs. Messages go to `say`; true where it was done.
    bool open_job(const QString& path);
    bool save_job(const QString& path);
    /// Sends an export off, false where another errand is still on its way; `say` tells how it ended.
    bool write_out(const Export& what, const QString& path);
    /// Reads the mesh behind the window's back and attaches it once it has proved sound.
    bool bring_in_mesh(const QString& path);
    /// Works all plug routes out behind the window and shows them beside each other; false while it is busy.
    bool set_side_by_side();
    [[nodiscard]] RoutesSheet& routes() { return *routes_; }
    /// Works the shell out in every school behind the window; false while it is busy.
    bool set_schools_side_by_side();
    /// Seeks stacks behind the window; false while it is busy.
    bool seek_stack();
    /// Nests the plug behind the window and keeps what is left of its sheets as stock of the shop's own;
    /// false while it is busy.
    bool keep_offcuts();
    /// Solves the tool at several rib pitches behind the window; false while it is busy.
    bool seek_pitch();
    [[nodiscard]] ShellSheet& shell_sheet() { return *shell_sheet_; }
    /// Shows the tool under a load on the stand; none for the back as it is built.
    void show_load(std::optional<LoadCase> load);
    /// Reads a drawing's largest closed outline behind the window's back and makes it the tray's.
    bool bring_in_outline(const QString& path);
    [[nodiscard]] Errand& errand() { return errand_; }

  protected:
    void closeEvent(QCloseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    struct Act {
        const char* key;
        QString name;
        QKeySequence keys;
        std::function<void()> go;
    };
    void build_head(QWidget* head);
    void build_acts();
    void open_palette();
    void open_handbook();
    void job_changed();
    void findings_changed();
    void show_scene(bool frame_again);
    void set_cut(double at);
    void set_plane(double share);
    void close_sheet();
    void act_on(const QString& act);
    void set_mark(int number, double share);
    void lay_paint(const Brush& brush, const std::vector<Touched>& touches, double reach);
    bool may_leave();
    bool send(Errand::Work work);
    void open_library();
    void do_with_file(const QString& title, const QString& filter, const QString& suffix,
                      const std::function<void(const QString&)>& work);

    Document* document_;
    JobCard* card_;
    Stand* stand_;
    ChartView* chart_;
    RoutesSheet* routes_;
    ShellSheet* shell_sheet_;
    QStackedWidget* centre_;
    Ribbon* ribbon_;
    Slip* slip_;
    QLabel *job_name_, *message_;
    QToolButton *undo_, *units_, *calls_, *menu_;
    QPushButton* stop_;
    QProgressBar* progress_;
    QWidget* offer_;
    std::vector<Act> acts_;
    Light light_ = Light::day;
    Wording wording_;
    Stage stage_ = Stage::brief;
    std::optional<LoadCase> load_;
    bool framed_ = false;
    Errand errand_;
    QTimer quiet_;
};

}  // namespace jig::app
