#include "app/stages/panes.hpp"

#include <algorithm>
#include <cmath>
#include <QBoxLayout>
#include <QHeaderView>

namespace jig::app {
namespace {

/// Every starter's table; each shows itself while its kind of shape is chosen.
class ShapePane : public Pane {
  public:
    ShapePane(Document& document, QWidget* parent) : Pane(parent) {
        auto* box = new QVBoxLayout(this);
        box->setContentsMargins(0, 0, 0, 0);
        for (auto* make : {make_outline_pane, make_stations_pane, make_section_pane, make_profile_pane}) {
            panes_.push_back(make(document, this));
            box->addWidget(panes_.back());
        }
    }
    void refresh(const Wording& wording) override {
        for (auto* pane : panes_) pane->refresh(wording);
    }

  private:
    std::vector<Pane*> panes_;
};

}  // namespace

Pane* make_pane(Document& document, Stage stage, QWidget* parent) {
    switch (stage) {
        case Stage::shape:
            return new ShapePane(document, parent);
        case Stage::edge:
            return make_edge_pane(document, parent);
        case Stage::shell:
            return make_shell_pane(document, parent);
        case Stage::back:
            return make_back_pane(document, parent);
        case Stage::part:
            return make_part_pane(document, parent);
        case Stage::plug:
            return make_plug_pane(document, parent);
        case Stage::run:
            return make_run_pane(document, parent);
        case Stage::bag:
            return make_bag_pane(document, parent);
        case Stage::heat:
            return make_heat_pane(document, parent);
        case Stage::release:
            return make_release_pane(document, parent);
        case Stage::log:
            return make_log_pane(document, parent);
        default:
            return nullptr;
    }
}

double middle_of_widest_gap(std::vector<double> shares) {
    if (shares.empty()) return 0;
    std::sort(shares.begin(), shares.end());
    double most = -1, place = 0;
    for (std::size_t i = 0; i < shares.size(); ++i) {
        const double next = i + 1 < shares.size() ? shares[i + 1] : shares.front() + 1;
        if (next - shares[i] <= most) continue;
        most = next - shares[i];
        place = (shares[i] + next) / 2;
    }
    return place - std::floor(place);
}

void fit_height(RecordTable* table, int least, int most) {
    table->setFixedHeight(table->horizontalHeader()->sizeHint().height() +
                          row_height(24) * std::clamp(table->rowCount(), least, most) + 6);
}

}  // namespace jig::app
