// The stand without OpenGL: triangles painted from far to near.
#include <QPainter>

#include "app/stand/plain.hpp"
#include "app/stand/stand.hpp"

namespace jig::app {
namespace {

class PaperCanvas : public QWidget, public Canvas {
  public:
    explicit PaperCanvas(Stand& stand) : stand_(stand) {}
    QWidget* widget() override { return this; }
    void scene_changed() override {}

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        const auto& scene = stand_.scene();
        p.fillRect(rect(), stand_.ink().paper);
        paint_plainly(p, scene, stand_.camera(), size(), false);
    }

  private:
    Stand& stand_;
};

}  // namespace

std::unique_ptr<Canvas> make_paper_canvas(Stand& stand) {
    return std::make_unique<PaperCanvas>(stand);
}

}  // namespace jig::app
