// The slip at the right: a stage with its calls first, then as sentences, its tables, figures and cautions.
#pragma once

#include <map>

#include <QLabel>
#include <QScrollArea>

#include "app/slip/sentence.hpp"
#include "app/stages/panes.hpp"
#include "app/theme/ink.hpp"

namespace jig::app {

class FiguresView;
class SentenceView;

class Slip : public QScrollArea {
    Q_OBJECT
  public:
    explicit Slip(Document& document, QWidget* parent = nullptr);
    void show_stage(Stage stage);
    void set_look(const Ink& ink, const Wording& wording);
    [[nodiscard]] Stage stage() const { return stage_; }
    /// Opens the editor of the word at a JSON pointer; false where the slip has no such word.
    bool open_word(const QString& path);
    /// Opens the call of this stage by its key and puts the focus there; false where it has none.
    bool open_call(const QString& key);
    /// The same for a figure's reasoning.
    bool open_figure(const QString& key);

  signals:
    /// The handbook's page of this stage is wanted.
    void page_wanted();
    /// A stage's pane asks for an act of the window.
    void act_wanted(const QString& act);
    /// The word at a JSON pointer, of whatever stage, is to be opened.
    void word_wanted(const QString& path);
    /// The place of a call of this stage is to be seen.
    void place_wanted(const QString& key);

  public slots:
    void job_changed();
    void findings_changed();

  private:
    void rebuild();
    void fill_sentences();
    void fill_figures();
    void fill_calls();
    void fill_cautions(QLayout* into);
    QString take(const Blank& word, const Json& value);

    Document& document_;
    Stage stage_ = Stage::brief;
    const Ink* ink_;
    Wording wording_;
    SentenceView* sentences_ = nullptr;
    FiguresView *large_ = nullptr, *figures_ = nullptr;
    QWidget* calls_ = nullptr;
    Pane* pane_ = nullptr;
    std::map<std::pair<Stage, QString>, bool> open_;  ///< calls that the maker has opened or shut
    Calls shown_calls_;
    bool shown_known_ = false;
};

}  // namespace jig::app
