#include "app/stages/part/builds_pane.hpp"

#include <QLabel>
#include <QPushButton>

#include "app/slip/flow_layout.hpp"
#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"
#include "core/stages/part/as_stiff.hpp"

namespace jig::app {
namespace {

using part::Build;

class BuildsPane : public RecordsPane<Build> {
    enum Column { kName, kMade };

  public:
    BuildsPane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.part.builds; },
              {"builds", "Builds that are kept of the part", "build", 0, 1, 8, false},
              {{"kept as", true, false, {}}, {"made of", false, false, {}}}, true, parent),
          document_(document) {
        auto* title = new QLabel("Builds", this);
        title->setFont(word_font(10.5, true));
        box()->insertWidget(0, title);
        box()->setContentsMargins(0, 6, 0, 0);
        auto* row = new QWidget(this);
        auto* flow = new FlowLayout(row, 6, 6);
        keep_ = new QPushButton("Keep this build", row);
        keep_->setObjectName("keep-build");
        keep_->setToolTip("Keeps resin, way of laying, stack and zones as they are now under a name");
        connect(keep_, &QPushButton::clicked, this, [this] { emit wanted("keep-build"); });
        auto* set = new QPushButton("Set builds side by side", row);
        set->setObjectName("set-builds");
        set->setToolTip("Mass, cost, days, bending and heat of each, the whole job worked out");
        connect(set, &QPushButton::clicked, this, [this] { emit wanted("builds"); });
        flow->addWidget(keep_);
        flow->addWidget(set);
        box()->addWidget(row);
    }
    void refresh(const Wording& wording) override {
        RecordsPane::refresh(wording);
        table().setVisible(!records().empty());
        keep_->setEnabled(!document_.job().part.layers.empty());
    }

  private:
    [[nodiscard]] QStringList cells(const Build& b) const override {
        const bool now = part::is_made_as(document_.job().part, b);
        return {text_of(b.name), text_of(part::in_short(b)) + (now ? " (as it is now)" : "")};
    }
    [[nodiscard]] std::optional<QString> type(Build& b, int column, const QString& text) const override {
        if (b.layers.empty())
            return QString(
                "a build is kept as the part is laid, by the button below; only its name is typed");
        if (column == kMade) return std::nullopt;
        if (text.isEmpty()) return QString("a build wants a name");
        for (const auto& other : records()) {
            if (&other != &b && other.name == text.toStdString() && other.name != b.name)
                return QString("\"%1\" is kept already").arg(text);
        }
        b.name = text.toStdString();
        return std::nullopt;
    }
    Document& document_;
    QPushButton* keep_;
};

}  // namespace

Pane* make_builds_pane(Document& document, QWidget* parent) {
    return new BuildsPane(document, parent);
}

}  // namespace jig::app
