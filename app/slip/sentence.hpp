// Choices as words inside sentences. A stage's slip is a list of these; the window makes them widgets.
#pragma once

#include <functional>
#include <QString>
#include <QStringList>
#include <variant>
#include <vector>

#include "core/job/job.hpp"
#include "core/shop/shop.hpp"
#include "core/stages/stage.hpp"

namespace jig::app {

/// One value that a word may take.
struct Option {
    Json value;
    QString said;
};

/// A word that can be changed. `path` is a JSON pointer into the job.
struct Blank {
    enum class Form { quantity, choice, text } form = Form::quantity;
    std::string path;
    QString name;  ///< what is edited, for undo and screen readers: "pulls planned"
    Kind unit = Kind::count;
    double low = 0, high = 1;  ///< SI, the sensible range of the slider
    std::vector<Option> options;
    QString note;  ///< where the figure usually comes from
    QString none;  ///< what 0 is called, where it is no quantity; empty where it is one
};

using Piece = std::variant<QString, Blank>;
using Sentence = std::vector<Piece>;

Blank quantity_word(std::string path, QString name, Kind unit, double low, double high, QString note = {});
/// The same with a word for 0.
Blank or_none(Blank word, QString none);
Blank text_word(std::string path, QString name);
Blank choice_word(std::string path, QString name, std::vector<Option> options);
/// All values of an enum, in its own words.
template <class E>
Blank enum_word(std::string path, QString name) {
    std::vector<Option> options;
    for (const auto& w : Words<E>::all)
        options.push_back({Json(std::string(w.file)),
                           QString::fromUtf8(w.said.data(), static_cast<qsizetype>(w.said.size()))});
    return choice_word(std::move(path), std::move(name), std::move(options));
}
/// The names of a shop list.
template <class List>
Blank shop_word(std::string path, QString name, const List& list) {
    std::vector<Option> options;
    for (const auto& e : list) options.push_back({Json(e.name), QString::fromStdString(e.name)});
    return choice_word(std::move(path), std::move(name), std::move(options));
}
Blank flag_word(std::string path, QString name, QString yes, QString no);

/// A plain number as `show_for_edit` writes it, whatever the locale.
double number_of(const std::string& text);

/// The word as it reads now.
QString word_text(const Blank& word, const Json& job, const Wording& wording);
/// The patch that sets it in `job` (as JSON).
Json word_patch(const Blank& word, const Json& job, Json value);

/// The sentences of a stage (app/stages/<stage>/).
std::vector<Sentence> sentences_of(Stage stage, const Job& job, const Shop& shop);

}  // namespace jig::app
