// What else resin touches: loose cores, inserts, dowel plates.
#include <QPushButton>

#include "app/slip/records_pane.hpp"
#include "app/slip/words.hpp"

namespace jig::app {
namespace {

class LoosePane : public RecordsPane<release::Loose> {
    enum Column { kName, kSurface, kHistory, kSystem, kArea };

  public:
    LoosePane(Document& document, QWidget* parent)
        : RecordsPane(
              document, [](Job & job) -> auto& { return job.release.loose; },
              {"loose-faces", "Loose pieces that resin touches", "loose piece", 0, 1, 6, true},
              {{"name", true, false, {}},
               {"surface", true, false, [](int) { return words_all<FaceKind>(); }},
               {"before", true, false, [](int) { return words_all<FaceHistory>(); }},
               {"release", true, false,
                [&document](int) {
                    QStringList all{"the same"};
                    for (const auto& s : document.shop().releases) all << QString::fromStdString(s.name);
                    return all;
                }},
               {"area", true, true, {}}},
              false, parent) {
        auto* more = new QPushButton("Add a loose piece", this);
        more->setObjectName("add-loose");
        connect(more, &QPushButton::clicked, this, [this] {
            release::Loose fresh;
            fresh.name = "loose piece " + std::to_string(records().size() + 1);
            add("add a loose piece", records().size(), fresh);
        });
        box()->addWidget(more, 0, Qt::AlignLeft);
    }

  private:
    [[nodiscard]] QStringList cells(const release::Loose& l) const override {
        return {QString::fromStdString(l.name), text_of(said(l.surface)), text_of(said(l.history)),
                l.system.empty() ? QString("the same") : QString::fromStdString(l.system),
                QString::fromStdString(show_for_edit(Kind::area, l.area, wording()))};
    }
    [[nodiscard]] std::optional<QString> type(release::Loose& l, int column,
                                              const QString& text) const override {
        switch (column) {
            case kName:
                if (text.isEmpty()) return QString("A loose piece needs a name: the log knows it by it");
                l.name = text.toStdString();
                return {};
            case kSurface:
                return pick(l.surface, text);
            case kHistory:
                return pick(l.history, text);
            case kSystem:
                l.system = text == "the same" ? std::string() : text.toStdString();
                return {};
            case kArea: {
                double area = 0;
                if (auto why = read_cell(Kind::area, "area", text, wording(), area)) return why;
                if (area < 0) return QString("\"%1\" is no area").arg(text);
                l.area = area;
                return {};
            }
            default:
                return {};
        }
    }
    void headings() override {
        table().horizontalHeaderItem(kArea)->setText(
            QString::fromStdString(unit_sign(Kind::area, wording())));
    }
};

}  // namespace

Pane* make_loose_pane(Document& document, QWidget* parent) {
    return new LoosePane(document, parent);
}

}  // namespace jig::app
