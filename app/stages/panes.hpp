// The tables of stages that are tables: the outline's points, the run's ledgers, the log.
#pragma once

#include <functional>
#include <QWidget>

#include "app/document/document.hpp"
#include "app/slip/record_table.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {

/// A table in a slip that shows the job anew when it has changed.
class Pane : public QWidget {
    Q_OBJECT
  public:
    using QWidget::QWidget;
    virtual void refresh(const Wording& wording) = 0;
    /// The inks that it draws with, where it draws.
    virtual void set_ink(const Ink&) {}

  signals:
    /// An act of the window is asked for, by its key.
    void wanted(const QString& act);
};

/// The pane of a stage, or null where its sentences say all.
Pane* make_pane(Document& document, Stage stage, QWidget* parent);

Pane* make_outline_pane(Document& document, QWidget* parent);
Pane* make_profile_pane(Document& document, QWidget* parent);
Pane* make_section_pane(Document& document, QWidget* parent);
Pane* make_stations_pane(Document& document, QWidget* parent);
/// The measured line of the station that `station` names; hidden where it has none.
Pane* make_gauge_pane(Document& document, std::function<std::size_t()> station, QWidget* parent);
Pane* make_edge_pane(Document& document, QWidget* parent);
Pane* make_shell_pane(Document& document, QWidget* parent);
Pane* make_part_pane(Document& document, QWidget* parent);
Pane* make_back_pane(Document& document, QWidget* parent);
Pane* make_plug_pane(Document& document, QWidget* parent);
Pane* make_run_pane(Document& document, QWidget* parent);
Pane* make_log_pane(Document& document, QWidget* parent);
Pane* make_bag_pane(Document& document, QWidget* parent);
/// What stands on the land of the bag's film; hidden where there is none.
Pane* make_rim_pane(Document& document, QWidget* parent);
/// Layers of the bag as they are cut; hidden where there is no bag.
Pane* make_layers_pane(Document& document, QWidget* parent);
/// Hoses, plans and fronts of an infused part; hidden where nothing is infused.
Pane* make_infusion_pane(Document& document, QWidget* parent);
/// Pots in turn and how thick the plies stay, of an infused part that fills; hidden elsewhere.
Pane* make_pots_pane(Document& document, QWidget* parent);
Pane* make_heat_pane(Document& document, QWidget* parent);
Pane* make_gate_pane(Document& document, QWidget* parent);
Pane* make_loose_pane(Document& document, QWidget* parent);
Pane* make_release_pane(Document& document, QWidget* parent);

/// Makes fittings that the rules have laid out the maker's own list; false where they are already.
bool own_fittings(Job& job, const Findings& findings);

/// The middle of the longest stretch of a closed way, by shares of it, without one of these; 0 without any.
double middle_of_widest_gap(std::vector<double> shares);

/// Sets a table's height to its rows, between `least` and `most` of them.
void fit_height(RecordTable* table, int least, int most);

}  // namespace jig::app
