// The stand: the thing that is being decided, in 3D, with a cut that can be dragged.
#pragma once

#include <QTimer>
#include <QWidget>

#include "app/stand/brush_bar.hpp"
#include "app/stand/camera.hpp"
#include "app/stand/pick.hpp"
#include "app/stand/scene.hpp"

class QLabel;
class QSlider;

namespace jig::app {

class Stand;

/// Draws the scene of its stand; one is made of OpenGL, one of paper.
class Canvas {
  public:
    Canvas() = default;
    Canvas(const Canvas&) = delete;
    Canvas& operator=(const Canvas&) = delete;
    virtual ~Canvas() = default;
    virtual QWidget* widget() = 0;
    virtual void scene_changed() = 0;
};

class Stand : public QWidget {
    Q_OBJECT
  public:
    explicit Stand(QWidget* parent = nullptr);
    ~Stand() override;

    void show_scene(Scene scene, bool frame_again);
    void set_ink(const Ink& ink);
    [[nodiscard]] const Scene& scene() const { return scene_; }
    [[nodiscard]] const Camera& camera() const { return camera_; }
    [[nodiscard]] const Ink& ink() const { return *ink_; }
    [[nodiscard]] bool has_opengl() const { return opengl_; }
    /// Where the cut's handle is on screen, in this widget's pixels.
    [[nodiscard]] QPointF handle() const;
    /// The same of the split plane's handle.
    [[nodiscard]] QPointF plane_handle() const;
    /// Where a mark is on screen.
    [[nodiscard]] QPointF mark_place(int number) const;
    /// Turns, where it has to, until a call's flag is seen, and marks it; false where it has none.
    bool look_at_flag(const QString& key);
    /// Where the pennant of a call's flag is on screen; none where it has no flag.
    [[nodiscard]] std::optional<QPointF> flag_place(const QString& key) const;
    /// Whether a place of the part is on the side that is looked at.
    [[nodiscard]] bool sees(const Point& place) const;
    /// How far things that come apart are drawn apart, 0 to 1.
    [[nodiscard]] double apart() const;
    void frame_all();

    /// While it is being turned, shifted or zoomed: large things are drawn with less detail then.
    [[nodiscard]] bool turning() const { return turning_; }

    /// Lines, dimensions, labels and the cut's frame over the surfaces.
    void paint_over(QPainter& painter) const;
    /// Whether this machine can draw with OpenGL 3.3 at all.
    static bool opengl_here();

  signals:
    /// The cut was dragged to this share (0..1) of its travel.
    void cut_dragged(double at);
    void cut_let_go();
    /// The split's plane was dragged to this share (0..1) of its travel.
    void plane_dragged(double at);
    void plane_let_go();
    void apart_changed();
    /// The flag of a call was pressed.
    void flag_pressed(const QString& key);
    /// The page of keys is asked for.
    void keys_wanted();
    /// A mark was dragged to this share of its way.
    void mark_dragged(int number, double share);
    /// A free mark was dragged to this place of the part.
    void mark_slid(int number, const Point& at);
    void mark_let_go();
    /// A stroke was laid on the part: what it means, and its touches in the part's own place.
    void painted(const Brush& brush, const std::vector<Touched>& touches, double reach);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    enum class Drag { none, turn, shift, cut, plane, paint, mark };
    /// The mark of that number; null for none.
    [[nodiscard]] const Mark* marked(int number) const;
    /// The number of the mark under the mouse; -1 for none.
    [[nodiscard]] int mark_at(const QPointF& at) const;
    [[nodiscard]] double share_at(const QPointF& at) const;
    void paint_marks(QPainter& painter) const;
    void paint_flags(QPainter& painter) const;
    /// Upper left corners of the pennants, in the order of the scene's flags; none lies over another.
    [[nodiscard]] std::vector<QPointF> pennants() const;
    [[nodiscard]] const CallFlag* flag_at(const QPointF& at) const;
    void redraw();
    /// Moves what a key moves: the cut, the split's plane, the chosen fitting; false for other keys.
    bool slide_by_key(int key);
    /// Takes, leads, widens and lays a brush by a key; false for other keys and with none in hand.
    bool paint_by_key(const QKeyEvent& event);
    /// Ends a stroke and hands it on.
    void end_stroke();
    // The handle follows at once; what it moves follows when it is worked out.
    void move_cut(double at);
    void move_plane(double at);
    void move_mark(int number, double share);
    void end_slide();
    void turn_to(double yaw, double pitch);
    void name_it();
    void place_slider();
    /// Adds a touch where the mouse is on the part, a good step from the last.
    void dab(const QPointF& at);
    void paint_brush(QPainter& painter) const;
    [[nodiscard]] Drag grabbed(const QPointF& at, Qt::MouseButton button) const;
    /// The share of a handle's travel after the mouse has moved by `step` from `now`.
    [[nodiscard]] double slid(const Point& low, const Point& high, const Point& now,
                              const QPointF& step) const;
    /// Redraws with less detail, and in full a moment after the last movement.
    void move_on();

    Scene scene_;
    Camera camera_;
    const Ink* ink_;
    std::unique_ptr<Canvas> canvas_;
    QWidget* overlay_ = nullptr;
    QSlider* apart_ = nullptr;
    BrushBar* brushes_ = nullptr;
    std::vector<Touched> stroke_;  ///< being laid
    QPointF mouse_;                ///< where the brush is
    bool led_ = false;             ///< there by keys
    QLabel* apart_label_ = nullptr;
    bool opengl_ = false, turning_ = false;
    QTimer still_;
    QPointF last_;
    Drag drag_ = Drag::none;
    QString flag_;               ///< key of the call whose flag was asked for last
    int mark_ = -1;              ///< being dragged, or chosen by key
    Drag sliding_ = Drag::none;  ///< what a key that is held moves
};

std::unique_ptr<Canvas> make_gl_canvas(Stand& stand);
std::unique_ptr<Canvas> make_paper_canvas(Stand& stand);

}  // namespace jig::app
