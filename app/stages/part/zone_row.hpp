// Which of the part's zones the stack's table shows, and where that zone lies.
#pragma once

#include <QWidget>

#include "app/document/document.hpp"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace jig::app {

class ZoneRow : public QWidget {
    Q_OBJECT
  public:
    explicit ZoneRow(Document& document, QWidget* parent = nullptr);
    void refresh(const Wording& wording);
    /// Of the zone that is shown, -1 for the whole part.
    [[nodiscard]] int zone() const { return zone_; }
    /// Takes the closed outline of a drawing, DXF or SVG, as that of the zone that is shown; its origin is
    /// the middle of the face.
    void take_drawing(const QString& path);

  signals:
    /// Another zone, or none, is to be shown.
    void chosen();

  private:
    void add(ZonePlace place);
    void edit(const QString& name, const std::function<void(part::Zone&)>& change);
    void typed_width();
    void typed_line();
    [[nodiscard]] const part::Zone* shown() const;

    Document& document_;
    QComboBox* zones_;
    QPushButton* away_;
    QWidget* details_;
    QLineEdit* name_;
    QComboBox* way_;
    QWidget* piece_box_;
    QComboBox* piece_;
    QWidget* width_box_;
    QLineEdit* width_;
    QWidget* line_box_;
    QLabel* line_label_ = nullptr;  ///< names the unit that corners are typed in
    QLineEdit* line_;
    int zone_ = -1;
    int told_ = -1;  ///< the zone that the fields tell
    Wording wording_;
};

}  // namespace jig::app
