// The one window.
#pragma once

#include <QMainWindow>

#include "app/charts/chart_view.hpp"
#include "app/document/document.hpp"
#include "app/ribbon/ribbon.hpp"
#include "app/slip/slip.hpp"
#include "app/stages/part/builds_sheet.hpp"
#include "app/stages/part/kit_sheet.hpp"
#include "app/stages/plug/routes_sheet.hpp"
#include "app/stages/shell/shell_sheet.hpp"
#include "app/stand/stand.hpp"
#include "app/window/acts.hpp"
#include "app/window/drawing.hpp"
#include "app/window/errand.hpp"
#include "app/window/exports.hpp"
#include "app/window/job_card.hpp"
#include "app/window/offer.hpp"
#include "app/window/palette.hpp"
#include "app/window/start.hpp"
#include "core/stages/back/trial.hpp"
#include "core/stages/heat/legs.hpp"

class QLabel;
class QMenu;
class QProgressBar;
class QPushButton;
class QSplitter;
class QStackedWidget;
class QToolButton;

namespace jig::app {

class Handbook;
class PrintPreview;
class ShopSheet;

class MainWindow : public QMainWindow {
    Q_OBJECT
  public:
    /// `board` as Document takes it.
    explicit MainWindow(Shop shop, QString recovery, std::shared_ptr<JobBoard> board = {});

    [[nodiscard]] Document& document() { return *document_; }
    [[nodiscard]] Stand& stand() { return *stand_; }
    [[nodiscard]] Ribbon& ribbon() { return *ribbon_; }
    [[nodiscard]] Slip& slip() { return *slip_; }
    [[nodiscard]] JobCard& job_card() { return *card_; }
    [[nodiscard]] const Wording& wording() const { return wording_; }

    /// Opens the word at a JSON pointer in its own stage.
    void show_word(const QString& path);
    void show_stage(Stage stage);
    /// How it looks, for now; only what is chosen by an act of the maker's is kept for the next time.
    void set_light(Light light);
    void set_wording(const Wording& wording);
    /// How large text is, 0.8 to 2 times the usual.
    void set_text(double scale);
    /// Offers what an earlier run left behind, in a bar under the head; true where there was something.
    bool offer_leftovers();
    /// Says something in the bar at the foot, for a while.
    void say(const QString& message);

    /// The work behind the menu, without file dialogs. Messages go to `say`; true where it was done.
    bool open_job(const QString& path);
    /// Asks first where something else has changed the file since it was opened.
    bool save_job(const QString& path);
    bool open_demo(const QString& name);
    /// A job, a shape or an outline, by the file's ending; from the start a shape makes a new job.
    bool open_any(const QString& path);
    /// A fresh job on the bench. Nothing is asked.
    void start_job(Job job);
    void show_start();
    [[nodiscard]] bool is_at_start() const;
    [[nodiscard]] Stage stage() const { return stage_; }
    void begin_walk();
    /// Sends an export off, false where another errand is still on its way; `say` tells how it ended.
    /// With `tiles` a full-size drawing is parted over pages of that size.
    bool write_out(const Export& what, const QString& path, std::optional<QPageSize::PageSizeId> tiles = {});
    /// Reads the mesh behind the window's back and attaches it once it has proved sound.
    bool bring_in_mesh(const QString& path);
    /// Works all plug routes out behind the window and shows them beside each other; false while it is busy.
    bool set_side_by_side();
    [[nodiscard]] RoutesSheet& routes() { return *routes_; }
    /// Works the shell out in every school behind the window; false while it is busy.
    bool set_schools_side_by_side();
    bool set_builds_side_by_side();
    /// Under the first free name where it has none, or one that is taken.
    void keep_build(part::Build build);
    /// Seeks stacks behind the window; false while it is busy.
    bool seek_stack();
    /// Nests the plug behind the window and keeps what is left of its sheets as stock of the shop's own;
    /// false while it is busy.
    bool keep_offcuts();
    /// Solves the tool at several rib pitches behind the window; false while it is busy.
    bool seek_pitch();
    /// Follows the resin of several plans of hoses behind the window; false while it is busy.
    bool seek_hoses();
    /// Fits permeability and race along the rim to the fronts that were marked.
    bool seek_race();
    /// Makes the permeability that this job takes its cloth and medium to the shop's own; false where it is
    /// the library's already or the lists cannot be written.
    void show_other_infusion();
    /// In Heat the tool with its thermocouples in place of the charts, or the charts.
    void show_heat_tool(bool shown);
    void show_thermocouples(CureOf of);
    void show_folds();
    bool keep_measured();
    /// Seeks where to cut the part's cloth, behind the window, and cuts it there.
    bool seek_cuts();
    bool seek_seams();
    /// The part's plies flat on their rolls, in place of the stand.
    bool lay_kit();
    /// The shop's library in place of the stand.
    bool open_shop();
    /// Looks for the soonest programme of a cure and takes it.
    bool seek_programme(CureOf of);
    [[nodiscard]] ShellSheet& shell_sheet() { return *shell_sheet_; }
    [[nodiscard]] BuildsSheet& builds_sheet() { return *builds_sheet_; }
    [[nodiscard]] KitSheet& kit_sheet() { return *kit_sheet_; }
    [[nodiscard]] ShopSheet* shop_sheet() { return shop_sheet_; }
    /// Shows the tool under a load on the stand; none for the back as it is built.
    void show_load(std::optional<LoadCase> load);
    /// Shows the part under one of its loads; none for it as it is made.
    void show_part_load(std::optional<std::size_t> load);
    /// Shows the darts of a layer of the bag; of none, those of the layer that wants most.
    void show_bag_layer(std::optional<std::size_t> layer);
    /// Reads a drawing's largest closed outline behind the window's back and makes it the tray's.
    bool bring_in_outline(const QString& path);
    [[nodiscard]] Errand& errand() { return errand_; }
    /// Whether the stand still waits for its picture.
    [[nodiscard]] bool is_drawing() const { return drawing_->busy(); }

  protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    /// A corner of a cure's programme is drawn to a place of its chart, s and K; all of one drag is one step.
    void draw_programme(const QString& cure, std::size_t grip, const QPointF& to, bool done);
    /// As it was before it was drawn.
    void drop_programme();
    /// The programme that is being drawn, as it was when its corner was taken up.
    struct Drawn {
        CureOf of;
        std::vector<heat::Leg> legs, own;  ///< as it went, and as it was typed: none for the usual one
        Course air;
    };
    std::optional<Drawn> in_hand_;
    /// The tool in place of Heat's charts, with what of it `job` says.
    void show_of_heat(const QString& what, Job job);
    void build_head(QWidget* head);
    void build_acts();
    void build_menu(QToolButton* under, Act::Menu which);
    /// Greys what does not fit this job, and says why.
    void renew_menus();
    void open_palette();
    void open_calls();
    [[nodiscard]] Findable findable(const Call& call);
    void open_handbook(const QString& page, const QString& heading = {});
    void show_bench();
    void start_shape(ShapeKind kind);
    void take_up(const Leftover& left);
    void walk(int by);
    void walk_areas(int by);
    void settle(Stage stage);
    void ask_job();
    void ask_mesh();
    void ask_outline();
    void ask_export(const Export& what);
    void open_preview();
    void show_preview(PrintPreview* preview);
    bool save();
    bool save_as();
    /// Asks for a file to write; empty where the maker left it.
    QString ask_name(const QString& title, const QString& filter, const QString& ending, bool numbered,
                     QString* chosen_filter = nullptr);
    /// Asks before something is lost; true where the maker agreed.
    bool agreed(const QString& question, const QString& detail, const QString& yes);
    void job_changed();
    void findings_changed();
    void show_progress(double fraction, const QString& doing);
    /// What there is of a job that has just been opened.
    void glimpse(const Findings& shape);
    void show_scene(bool frame_again);
    void draw(const Findings& findings, bool frame_again);
    void show_drawn(Drawing::Made& drawn);
    /// Draws, folds or takes away the section, as this stage and the maker want it.
    void make_room_for_section();
    void fold_section();
    void set_cut(double at);
    void set_plane(double share);
    void close_sheet();
    void act_on(const QString& act);
    void set_mark(int number, double share);
    /// Puts an end of a hose where it was dragged to; from then on the hoses are the maker's own.
    void slide_mark(int number, const Point& at);
    void set_insert(std::size_t number, const Point& at);
    void set_cut_corner(std::size_t corner, const Point& at);
    void set_hose(int number, const Point& at);
    void set_rim(std::size_t number, double share);
    /// Where the part's cloth starts, or which way its warp runs.
    void set_cloth(bool start, const Point& at);
    void turn_cloth();
    void set_seen(std::size_t number, const Point& at);
    /// A mark of the real front: at the time that the stand shows, where it is planned to be then.
    void mark_front();
    void show_flow_thickness(bool shown);
    void lay_paint(const Brush& brush, const std::vector<Touched>& touches, double reach);
    bool may_leave();
    bool send(Errand::Work work);
    /// The same for what changes or shows the job: what comes home to another job is dropped.
    bool send_for_job(Errand::Work work);
    /// Whether charts stand where other stages have the stand.
    [[nodiscard]] bool shows_charts() const;

    Document* document_;
    JobCard* card_;
    Stand* stand_;
    ChartView* chart_;
    RoutesSheet* routes_;
    ShellSheet* shell_sheet_;
    BuildsSheet* builds_sheet_;
    KitSheet* kit_sheet_;
    ShopSheet* shop_sheet_ = nullptr;  ///< none until it is asked for
    QStackedWidget* centre_;
    QToolButton* swap_;
    bool heat_tool_ = false;
    Ribbon* ribbon_;
    Slip* slip_;
    QLabel *job_name_, *message_;
    QToolButton *undo_, *calls_, *menu_, *sheets_, *look_;
    QMenu* recent_ = nullptr;
    QStackedWidget* whole_;
    StartSheet* start_;
    QSplitter *sides_, *middle_;
    int section_height_ = 190;  ///< as the maker drew it
    QWidget *head_, *foot_;
    Handbook* handbook_ = nullptr;
    int slip_width_ = 0;  ///< as the maker drew it; 0: as usual
    QPushButton* stop_;
    QProgressBar* progress_;
    Offer* offer_;
    std::vector<Act> acts_;
    Light light_ = Light::day;
    Wording wording_;
    Stage stage_ = Stage::brief;
    Stage drawn_ = Stage::brief;  ///< whose scene stands on the stand: hands reach for what is seen there
    Drawing* drawing_;
    std::optional<LoadCase> load_;
    std::optional<std::size_t> part_load_, bag_layer_;
    bool flow_thickness_ = false;
    bool framed_ = false;
    Errand errand_;
    QTimer quiet_;
};

}  // namespace jig::app
