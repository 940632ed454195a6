// The stack of a laminate as a table: drag to reorder, type into it, copy and paste.
#pragma once

#include "app/stages/panes.hpp"

class QComboBox;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace jig::app {

class FlowLayout;
class ZoneRow;

class StackPane : public Pane {
    Q_OBJECT
  public:
    /// `stage` is Shell or Part: whose layers these are.
    StackPane(Document& document, Stage stage, QWidget* parent = nullptr);
    void refresh(const Wording& wording) override;
    [[nodiscard]] RecordTable* table() const { return table_; }

  private:
    enum Column { kName, kAngle, kThickness, kMass, kThen, kUnits };

    [[nodiscard]] const std::vector<Layer>& layers() const;
    void set_layers(const QString& name, const std::vector<Layer>& layers);
    void build_zones(QVBoxLayout* box);
    void fill_zones();
    [[nodiscard]] QString counted(const Layer& layer) const;
    void build_units(QVBoxLayout* box);
    void fill_units();
    void lay_units();
    [[nodiscard]] const shell::Zone* zone() const;
    /// The layers that are shown as they were laid; null where nothing is known of them.
    [[nodiscard]] const std::vector<LaidLayer>* laid() const;
    /// Of the part's zones the one that is shown, or null.
    [[nodiscard]] const part::Zone* part_zone() const;
    void build_goes(QWidget* parent, FlowLayout* flow);
    void add_ply(bool heavy);
    void toggle_hardens(int row);
    [[nodiscard]] bool may_end_go(int row) const;
    void add_layer(const QString& name, Layer layer);
    void typed(int row, int column, const QString& text);
    void pasted(const QList<QStringList>& rows);
    [[nodiscard]] QStringList names_like(const Layer& layer) const;

    Document& document_;
    Stage stage_;
    RecordTable* table_;
    QComboBox* zones_ = nullptr;         ///< whose layers the table shows; none for the part
    QLineEdit* units_ = nullptr;         ///< the layers counted in the shop's units; none for the part
    std::vector<Layer> counted_layers_;  ///< the layers that the field in units tells
    QLabel* counted_ = nullptr;
    ZoneRow* zone_row_ = nullptr;  ///< the part's zones; none for the shell
    mutable std::vector<LaidLayer> zone_laid_;
    int zone_ = -1;  ///< -1 for the common stack
    Wording wording_;
};

}  // namespace jig::app
