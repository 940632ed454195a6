#include "app/slip/sentence.hpp"

#include "app/stages/sentences.hpp"

namespace jig::app {

Blank quantity_word(std::string path, QString name, Kind unit, double low, double high, QString note) {
    Blank w;
    w.path = std::move(path);
    w.name = std::move(name);
    w.unit = unit;
    w.low = low;
    w.high = high;
    w.note = std::move(note);
    return w;
}

Blank text_word(std::string path, QString name) {
    Blank w;
    w.form = Blank::Form::text;
    w.path = std::move(path);
    w.name = std::move(name);
    return w;
}

Blank choice_word(std::string path, QString name, std::vector<Option> options) {
    Blank w;
    w.form = Blank::Form::choice;
    w.path = std::move(path);
    w.name = std::move(name);
    w.options = std::move(options);
    return w;
}

Blank flag_word(std::string path, QString name, QString yes, QString no) {
    return choice_word(std::move(path), std::move(name), {{true, std::move(yes)}, {false, std::move(no)}});
}

double number_of(const std::string& text) {
    return QString::fromStdString(text).toDouble();
}

Blank or_none(Blank word, QString none) {
    word.none = std::move(none);
    if (!word.note.isEmpty()) word.note += "; ";
    word.note += "0: " + word.none;
    return word;
}

QString word_text(const Blank& word, const Json& job, const Wording& wording) {
    const auto& value = job.at(Json::json_pointer(word.path));
    switch (word.form) {
        case Blank::Form::quantity:
            if (!word.none.isEmpty() && value.get<double>() == 0) return word.none;
            return QString::fromStdString(show(word.unit, value.get<double>(), wording));
        case Blank::Form::text: {
            const auto text = QString::fromStdString(value.get<std::string>());
            return text.isEmpty() ? QStringLiteral("…") : text;
        }
        case Blank::Form::choice:
            for (const auto& option : word.options) {
                if (option.value == value) return option.said;
            }
            return value.is_string() ? QString::fromStdString(value.get<std::string>()) : QStringLiteral("…");
    }
    return {};
}

Json word_patch(const Blank& word, const Json& job, Json value) {
    // A merge patch cannot reach into a list, so the whole choice that holds the value is set.
    auto next = job;
    next[Json::json_pointer(word.path)] = std::move(value);
    const auto stage = word.path.substr(1, word.path.find('/', 1) - 1);
    const auto rest = word.path.substr(stage.size() + 2);
    const auto field = rest.substr(0, rest.find('/'));
    return patch_of(stage.c_str(), field.c_str(), next[stage][field]);
}

Blank piece_word(const Job& job) {
    std::vector<Option> pieces;
    const auto& names = job.split.names;
    const int most = job.split.way == SplitWay::plane ? 2 : job.split.pieces;
    for (int i = 1; i <= most; ++i)
        pieces.push_back({Json(i), i <= static_cast<int>(names.size())
                                       ? QString::fromStdString(names[static_cast<std::size_t>(i - 1)])
                                       : QString("piece %1").arg(i)});
    return choice_word("/edge/piece", "piece that is shown", std::move(pieces));
}

std::vector<Sentence> sentences_of(Stage stage, const Job& job, const Shop& shop) {
    switch (stage) {
        case Stage::brief:
            return brief_sentences(job, shop);
        case Stage::shape:
            return shape_sentences(job, shop);
        case Stage::split:
            return split_sentences(job, shop);
        case Stage::plug:
            return plug_sentences(job, shop);
        case Stage::edge:
            return edge_sentences(job, shop);
        case Stage::shell:
            return shell_sentences(job, shop);
        case Stage::back:
            return back_sentences(job, shop);
        case Stage::release:
            return release_sentences(job, shop);
        case Stage::part:
            return part_sentences(job, shop);
        case Stage::bag:
            return bag_sentences(job, shop);
        case Stage::heat:
            return heat_sentences(job, shop);
        case Stage::run:
            return run_sentences(job, shop);
        case Stage::log:
            return log_sentences(job, shop);
    }
    return {};
}

}  // namespace jig::app
