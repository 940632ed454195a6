// The shop's library, list by list and figure by figure, as the shop makes it its own.
#pragma once

#include <optional>
#include <QScrollArea>

#include "app/charts/chart_view.hpp"
#include "app/document/document.hpp"
#include "app/slip/record_table.hpp"
#include "core/shop/figures.hpp"

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace jig::app {

struct CurePlots;

/// Only what departs from the shipped lists is written into the shop's own folder; the job is worked out
/// anew after each change, and the last ones can be taken back here.
class ShopSheet : public QScrollArea {
    Q_OBJECT
  public:
    ShopSheet(Document& document, QWidget* parent);
    /// Fills it; for when it comes to be seen.
    void open();
    /// The entry of a list, for its figures to be looked at.
    void show_entry(const QString& list, const QString& entry);
    void set_look(const Ink& ink, const Wording& wording);

  signals:
    void close_wanted();
    void said(const QString& message);

  private:
    using Change = std::function<Shop(const Shop&)>;
    /// A change that can be taken back.
    struct Before {
        std::string list;
        std::optional<std::string> text, after;  ///< of the shop's own file; none where there was none
        QString name;
    };
    void lay_out();
    void fill_entries();
    void fill_figures();
    [[nodiscard]] CurePlots cure_shown() const;
    void fill_cure();
    void follow_row();
    /// Makes a change on what is on disk and keeps it there. What cannot be done is said, and nothing is
    /// lost.
    void change(const QString& name, const Change& how);
    void keep(const Shop& shop, const std::string& list);
    void take_back();
    void type(int row, int column, const QString& text);
    void add_copy();
    [[nodiscard]] std::string list() const;
    [[nodiscard]] std::string entry() const;
    /// The figure of the row that is chosen.
    [[nodiscard]] const ShopFigure* chosen() const;
    [[nodiscard]] QString text_of_figure(const ShopFigure& f) const;

    Document& document_;
    Shop shipped_;
    std::vector<ShopFigure> figures_;
    std::vector<Before> before_;
    QComboBox* lists_;
    QListWidget* entries_;
    QLineEdit *sought_, *name_, *note_;
    RecordTable* table_;
    QPushButton *back_, *copy_, *give_up_, *more_, *away_;
    QLabel *whose_, *fit_;
    PlotView *gel_, *glass_;
    const Ink* ink_;
    Wording wording_;
    bool filling_ = false;
};

}  // namespace jig::app
