// Finding and reading: the palette, the list of calls, the handbook.
#include <algorithm>
#include <array>
#include <QToolButton>

#include "app/window/handbook.hpp"
#include "app/window/main_window.hpp"
#include "app/window/places.hpp"

namespace jig::app {

void MainWindow::open_palette() {
    std::vector<Findable> all;
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        all.push_back({kStages[s].said, "stage", [this, stage] { show_stage(stage); }});
    }
    for (const auto& act : acts_) {
        if (act.key != std::string("find"))
            all.push_back({act.name + (act.keys.isEmpty() ? QString() : "  " + act.keys.front().toString()),
                           act.of ? QString("action of %1").arg(name_of(*act.of).said) : QString("action"),
                           act.go});
    }
    const auto& f = document_->findings();
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        for (const auto& figure : f.figures(stage)) {
            all.push_back({QString::fromStdString(worded(figure.name, wording_) + ": " +
                                                  jig::show(figure.kind, figure.value, wording_)),
                           QString("figure of %1").arg(kStages[s].said),
                           [this, stage, key = QString::fromStdString(figure.key)] {
                               show_stage(stage);
                               slip_->open_figure(key);
                           }});
        }
        for (const auto& sentence : sentences_of(stage, document_->job(), document_->shop())) {
            for (const auto& piece : sentence) {
                if (const auto* word = std::get_if<Blank>(&piece)) {
                    all.push_back({"set " + word->name, QString("choice of %1").arg(kStages[s].said),
                                   [this, path = QString::fromStdString(word->path)] { show_word(path); }});
                }
            }
        }
    }
    for (const auto& call : f.calls) all.push_back(findable(call));
    for (const auto& heading : Handbook::headings(handbook_folder()))
        all.push_back(
            {heading.said, "handbook", [this, heading] { open_handbook(heading.page, heading.said); }});
    const auto layers = [&](const std::vector<Layer>& list, Stage stage) {
        for (std::size_t i = 0; i < list.size(); ++i) {
            all.push_back(
                {QString("layer %1: %2")
                     .arg(i + 1)
                     .arg(QString::fromStdString(list[i].kind == LayerKind::coupling ? "coupling coat"
                                                                                     : list[i].material)),
                 QString("layer of %1").arg(name_of(stage).said), [this, stage] { show_stage(stage); }});
        }
    };
    layers(document_->job().shell.layers, Stage::shell);
    layers(document_->job().part.layers, Stage::part);
    Shop::lists(document_->shop(), [&](std::string_view list, const auto& entries) {
        const auto kind =
            QString::fromUtf8(list.data(), static_cast<qsizetype>(list.size())).replace('_', ' ');
        for (const auto& e : entries) {
            const auto origin =
                std::string(said(e.origin.kind)) + (e.origin.note.empty() ? "" : ": " + e.origin.note);
            all.push_back({QString::fromStdString(e.name), kind,
                           [this, words = QString::fromStdString(e.name + ", " + origin)] { say(words); }});
        }
    });
    (new Palette(std::move(all), "a stage, an action, a layer, a material, a figure, a call", 14, this))
        ->open();
}

Findable MainWindow::findable(const Call& call) {
    static constexpr std::array kWords{"note", "caution", "stop"};
    return {
        QString::fromStdString(worded(call.headline, wording_)),
        QString("%1 of %2").arg(kWords[static_cast<std::size_t>(call.severity)], name_of(call.stage).said),
        [this, stage = call.stage, key = QString::fromStdString(call.key)] {
            show_stage(stage);
            slip_->open_call(key);
        }};
}

void MainWindow::open_calls() {
    auto calls = document_->findings().calls;
    std::stable_sort(calls.begin(), calls.end(),
                     [](const Call& a, const Call& b) { return a.severity > b.severity; });
    std::vector<Findable> all;
    for (const auto& call : calls) all.push_back(findable(call));
    if (all.empty()) return say("Nothing speaks against this job.");
    (new Palette(std::move(all), "all calls, worst first: Enter goes there", 100, this))->open();
}

void MainWindow::open_handbook(const QString& page, const QString& heading) {
    if (handbook_ == nullptr) {
        handbook_ = new Handbook(handbook_folder(), this);
        connect(handbook_, &QObject::destroyed, this, [this] { handbook_ = nullptr; });
    }
    handbook_->set_keys(acts_, own_keys());
    handbook_->open(page, heading);
}

}  // namespace jig::app
