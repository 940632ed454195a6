// The handbook in a window that stays: contents, search, glossary, and a page of keys from the program's
// list.
#pragma once

#include <QWidget>

#include "app/window/acts.hpp"

class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace jig::app {

class Handbook : public QWidget {
    Q_OBJECT
  public:
    struct Heading {
        QString page;  ///< key of the page
        QString said;
    };
    Handbook(const QString& folder, QWidget* parent);
    /// Shows a page, at a heading where one is named, and comes to the front.
    void open(const QString& page, const QString& heading = {});
    void set_keys(const std::vector<Act>& acts, const std::vector<OwnKey>& own);
    /// Pages and headings of all pages in a folder, in their order.
    [[nodiscard]] static std::vector<Heading> headings(const QString& folder);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void list_contents();
    void search(const QString& text);
    void show_page(const QString& page, const QString& find);
    void fit_pictures();
    [[nodiscard]] QString text_of(const QString& page) const;

    QString folder_, keys_, page_;
    QLineEdit* field_;
    QListWidget* list_;
    QTextBrowser* text_;
};

}  // namespace jig::app
