#include "app/window/shop_sheet.hpp"

#include <QBoxLayout>
#include <QComboBox>
#include <QDate>
#include <QDesktopServices>
#include <QDir>
#include <QFile>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QUrl>

#include "app/charts/shop_plots.hpp"
#include "app/slip/flow_layout.hpp"
#include "app/slip/words.hpp"
#include "app/window/errand.hpp"
#include "app/window/places.hpp"
#include "core/base/error.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/stl.hpp"
#include "core/shop/cure.hpp"

namespace jig::app {
namespace {

using Is = ShopFigure::Is;
enum Column { kName, kValue, kFrom };

QString path_of(const std::string& list) {
    return own_library() + "/" + QString::fromStdString(list) + ".json";
}

std::optional<std::string> text_on_disk(const std::string& list) {
    const auto path = path_of(list);
    if (!QFile::exists(path)) return std::nullopt;
    return read_file(path.toStdString(), 16u << 20);
}

void write_text(const std::string& list, const std::string& text) {
    const auto path = path_of(list);
    if (text.empty()) {
        QFile::remove(path);
        return;
    }
    QDir().mkpath(own_library());
    write_atomically(text, path.toStdString());
}

QString yes_or_no(bool yes) {
    return yes ? "yes" : "no";
}

/// A figure typed is no typical one any more.
Origin typed_now(const Origin& was) {
    return {was.kind == OriginKind::typical ? OriginKind::data_sheet : was.kind,
            QDate::currentDate().toString("yyyy-MM").toStdString(), was.note};
}

QPushButton* button(QWidget* parent, const char* name, const QString& text) {
    auto* out = new QPushButton(text, parent);
    out->setObjectName(name);
    return out;
}

}  // namespace

ShopSheet::ShopSheet(Document& document, QWidget* parent)
    : QScrollArea(parent), document_(document), ink_(&app::ink(Light::day)) {
    setObjectName("shop-sheet");
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setAccessibleName("The shop's library");
    lay_out();
}

void ShopSheet::lay_out() {
    auto* page = new QWidget(this);
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(14, 10, 10, 10);
    auto* head = new QHBoxLayout();
    auto* title = new QLabel("The shop's library", page);
    title->setFont(word_font(12, true));
    auto* close = button(page, "shop-close", "Back to the stand");
    connect(close, &QPushButton::clicked, this, &ShopSheet::close_wanted);
    head->addWidget(title);
    head->addStretch();
    head->addWidget(close);
    box->addLayout(head);

    auto* columns = new QHBoxLayout();
    auto* left = new QVBoxLayout();
    lists_ = new QComboBox(page);
    lists_->setObjectName("shop-list");
    lists_->setAccessibleName("List of the library");
    for (const auto& l : shop_lists())
        lists_->addItem(QString::fromStdString(l.name), QString::fromStdString(l.key));
    sought_ = new QLineEdit(page);
    sought_->setObjectName("shop-sought");
    sought_->setPlaceholderText("part of a name…");
    sought_->setAccessibleName("Part of the name of an entry");
    // What is looked up most, and has most to tell.
    lists_->setCurrentIndex(lists_->findData("resins"));
    entries_ = new QListWidget(page);
    entries_->setObjectName("shop-entries");
    entries_->setAccessibleName("Entries of the list");
    entries_->setMinimumWidth(200);
    left->addWidget(lists_);
    left->addWidget(sought_);
    left->addWidget(entries_, 1);
    columns->addLayout(left, 2);

    auto* right = new QVBoxLayout();
    whose_ = new QLabel(page);
    whose_->setObjectName("shop-whose");
    whose_->setWordWrap(true);
    table_ = new RecordTable({{"figure", false, false, {}},
                              {"value", true, true,
                               [this](int row) {
                                   QStringList out;
                                   if (row < 0 || row >= static_cast<int>(figures_.size())) return out;
                                   const auto& f = figures_[static_cast<std::size_t>(row)];
                                   if (f.is == Is::flag) return QStringList{"yes", "no"};
                                   for (const auto& s : f.said) out << QString::fromStdString(s);
                                   return out;
                               }},
                              {"where from", true, false, [](int) { return words_all<OriginKind>(); }}},
                             false, page);
    table_->setObjectName("shop-figures");
    table_->setAccessibleName("Figures of the entry");
    table_->setMinimumHeight(260);
    table_->verticalHeader()->hide();
    note_ = new QLineEdit(page);
    note_->setObjectName("shop-note");
    note_->setPlaceholderText("a note: which data sheet, of when, measured how");
    note_->setAccessibleName("Note on where the entry's figures come from");
    auto* acts = new QWidget(page);
    more_ = button(acts, "shop-more", "One more");
    away_ = button(acts, "shop-away", "Take it away");
    give_up_ = button(acts, "shop-give-up", "As it was shipped");
    back_ = button(acts, "shop-back", "Take the last change back");
    auto* flow = new FlowLayout(acts, 6, 6);
    flow->addWidget(more_);
    flow->addWidget(away_);
    flow->addWidget(give_up_);
    flow->addWidget(back_);
    auto* copying = new QWidget(page);
    auto* copy_row = new FlowLayout(copying, 6, 6);
    name_ = new QLineEdit(copying);
    name_->setObjectName("shop-name");
    name_->setPlaceholderText("name of a new entry");
    name_->setAccessibleName("Name of a new entry");
    name_->setMinimumWidth(190);
    copy_ = button(copying, "shop-copy", "Add one like this");
    copy_row->addWidget(name_);
    copy_row->addWidget(copy_);
    right->addWidget(whose_);
    right->addWidget(table_, 1);
    right->addWidget(note_);
    right->addWidget(acts);
    right->addWidget(copying);
    columns->addLayout(right, 5);
    box->addLayout(columns, 1);

    fit_ = new QLabel(page);
    fit_->setObjectName("shop-fit");
    fit_->setWordWrap(true);
    box->addWidget(fit_);
    auto* plots = new QHBoxLayout();
    for (auto* plot : {&gel_, &glass_}) {
        *plot = new PlotView(page);
        (*plot)->setMinimumHeight(180);
        plots->addWidget(*plot);
    }
    gel_->setObjectName("shop-gel-plot");
    glass_->setObjectName("shop-glass-plot");
    box->addLayout(plots);
    auto* files = new QWidget(page);
    auto* file_row = new FlowLayout(files, 6, 6);
    auto* folder = button(files, "shop-folder", "Open the folder of the shop's own lists");
    auto* again = button(files, "shop-again", "Read them again");
    file_row->addWidget(folder);
    file_row->addWidget(again);
    box->addWidget(files);
    setWidget(page);

    connect(folder, &QPushButton::clicked, this, [this] {
        QDir().mkpath(own_library());
        QDesktopServices::openUrl(QUrl::fromLocalFile(own_library()));
        emit said("Your own entries lie in " + own_library() + ", a file for each list.");
    });
    connect(again, &QPushButton::clicked, this, [this] {
        try {
            document_.set_shop(shop_on_disk());
            fill_entries();
            emit said("The library has been read again.");
        } catch (const InputError& e) {
            emit said(message_of(e));
        }
    });
    connect(lists_, &QComboBox::currentIndexChanged, this, [this] {
        sought_->clear();
        fill_entries();
    });
    connect(sought_, &QLineEdit::textChanged, this, &ShopSheet::fill_entries);
    connect(entries_, &QListWidget::currentRowChanged, this, [this] {
        if (!filling_) fill_figures();
    });
    connect(table_, &RecordTable::typed, this, &ShopSheet::type);
    connect(table_, &QTableWidget::itemSelectionChanged, this, &ShopSheet::follow_row);
    connect(table_, &QTableWidget::currentCellChanged, this, &ShopSheet::follow_row);
    connect(note_, &QLineEdit::editingFinished, this, [this] {
        if (filling_ || entry().empty()) return;
        auto origin = entry_origin(document_.shop(), list(), entry());
        if (note_->text().toStdString() == origin.note) return;
        origin.note = note_->text().toStdString();
        change("note on " + QString::fromStdString(entry()),
               [&](const Shop& s) { return with_origin(s, list(), entry(), "", origin); });
    });
    connect(more_, &QPushButton::clicked, this, [this] {
        const auto* f = chosen();
        if (f == nullptr || f->is != Is::list) return;
        change("one more " + QString::fromStdString(f->name),
               [&](const Shop& s) { return with_item(s, list(), entry(), f->pointer); });
    });
    connect(away_, &QPushButton::clicked, this, [this] {
        const auto* f = chosen();
        if (f == nullptr) return;
        const auto item = f->pointer.substr(0, f->pointer.rfind('/'));
        change(QString::fromStdString(f->group) + " away",
               [&](const Shop& s) { return without_item(s, list(), entry(), item); });
    });
    connect(give_up_, &QPushButton::clicked, this, [this] {
        change(QString::fromStdString(entry()) + " as it was shipped",
               [&](const Shop& s) { return without_own(s, shipped_, list(), entry()); });
    });
    connect(back_, &QPushButton::clicked, this, &ShopSheet::take_back);
    connect(copy_, &QPushButton::clicked, this, &ShopSheet::add_copy);
    connect(name_, &QLineEdit::returnPressed, this, &ShopSheet::add_copy);
}

void ShopSheet::open() {
    if (shipped_.resins.empty()) shipped_ = load_shop(data_folder().toStdString() + "/library");
    fill_entries();
}

void ShopSheet::show_entry(const QString& list, const QString& entry) {
    lists_->setCurrentIndex(std::max(0, lists_->findData(list)));
    sought_->clear();
    for (int i = 0; i < entries_->count(); ++i) {
        if (entries_->item(i)->data(Qt::UserRole).toString() == entry) entries_->setCurrentRow(i);
    }
}

void ShopSheet::set_look(const Ink& ink, const Wording& wording) {
    ink_ = &ink;
    wording_ = wording;
    if (isVisible()) fill_figures();
}

std::string ShopSheet::list() const {
    return lists_->currentData().toString().toStdString();
}

std::string ShopSheet::entry() const {
    const auto* item = entries_->currentItem();
    return item == nullptr ? std::string() : item->data(Qt::UserRole).toString().toStdString();
}

const ShopFigure* ShopSheet::chosen() const {
    const int row = table_->currentRow();
    return row >= 0 && row < static_cast<int>(figures_.size()) ? &figures_[static_cast<std::size_t>(row)]
                                                               : nullptr;
}

void ShopSheet::fill_entries() {
    const auto was = entry();
    filling_ = true;
    entries_->clear();
    int row = 0;
    for (const auto& name : entry_names(document_.shop(), list())) {
        const auto text = QString::fromStdString(name);
        if (!text.contains(sought_->text(), Qt::CaseInsensitive)) continue;
        const bool own = is_own(document_.shop(), shipped_, list(), name);
        auto* item = new QListWidgetItem(own ? text + " · ours" : text, entries_);
        item->setData(Qt::UserRole, text);
        item->setToolTip(own ? text + ": the shop's own" : text);
        if (name == was) row = entries_->count() - 1;
    }
    entries_->setCurrentRow(entries_->count() > 0 ? row : -1);
    filling_ = false;
    fill_figures();
}

QString ShopSheet::text_of_figure(const ShopFigure& f) const {
    switch (f.is) {
        case Is::list: {
            const auto n = f.value.get<std::size_t>();
            return n == 0 ? QString("none") : QString("%1 of them").arg(n);
        }
        case Is::flag:
            return yes_or_no(f.value.get<bool>());
        case Is::text:
            return QString::fromStdString(f.value.get<std::string>());
        case Is::word: {
            const auto at = std::find(f.words.begin(), f.words.end(), f.value.get<std::string>());
            return at == f.words.end()
                       ? QString()
                       : QString::fromStdString(f.said[static_cast<std::size_t>(at - f.words.begin())]);
        }
        case Is::whole:
            return QString::number(f.value.get<int>());
        case Is::number:
            break;
    }
    if (f.value.is_null()) return {};
    const double value = f.value.get<double>();
    if (f.kind == Kind::factor)
        return QString::number(value, 'g', 6) +
               (f.unit.empty() ? QString() : " " + QString::fromStdString(f.unit));
    const auto sign = QString::fromStdString(unit_sign(f.kind, wording_));
    return QString::fromStdString(show_for_edit(f.kind, value, wording_)) +
           (sign.isEmpty() ? QString() : " " + sign);
}

void ShopSheet::fill_figures() {
    filling_ = true;
    figures_ = shop_figures(document_.shop(), list(), entry());
    const bool any = !figures_.empty();
    QList<QStringList> rows;
    QList<QString> tips;
    for (const auto& f : figures_) {
        const auto from = figure_origin(document_.shop(), list(), entry(), f.key);
        const auto name = QString::fromStdString(f.group.empty() ? f.name : f.group + ": " + f.name);
        rows << QStringList{name, text_of_figure(f), text_of(jig::said(from.kind))};
        tips << name + (from.note.empty() ? QString() : "\n" + QString::fromStdString(from.note)) +
                    (from.date.empty() ? QString() : "\n" + QString::fromStdString(from.date));
    }
    table_->show_rows(rows, tips);
    const bool own = any && is_own(document_.shop(), shipped_, list(), entry());
    const auto shipped_names = entry_names(shipped_, list());
    const bool known = std::find(shipped_names.begin(), shipped_names.end(), entry()) != shipped_names.end();
    whose_->setText(!any    ? QString("The list has no such entry.")
                    : !own  ? QString::fromStdString(entry()) + ": as it was shipped"
                    : known ? QString::fromStdString(entry()) + ": shipped, with figures of the shop's own"
                            : QString::fromStdString(entry()) + ": the shop's own");
    give_up_->setText(known ? "As it was shipped" : "Strike it from the list");
    give_up_->setEnabled(own);
    copy_->setEnabled(any);
    note_->setEnabled(any);
    note_->setText(any ? QString::fromStdString(entry_origin(document_.shop(), list(), entry()).note)
                       : QString());
    note_->setCursorPosition(0);
    back_->setEnabled(!before_.empty());
    back_->setToolTip(before_.empty() ? QString("Nothing has been changed here")
                                      : "Take back: " + before_.back().name);
    fill_cure();
    follow_row();
    filling_ = false;
}

void ShopSheet::follow_row() {
    const auto* f = chosen();
    const bool list = f != nullptr && f->is == Is::list;
    const bool item = f != nullptr && !f->group.empty() && std::isdigit(f->group.back()) != 0;
    more_->setText(list ? "One more: " + QString::fromStdString(f->name) : QString("One more"));
    more_->setEnabled(list);
    away_->setText(item ? "Take away: " + QString::fromStdString(f->group) : QString("Take it away"));
    away_->setEnabled(item);
}

CurePlots ShopSheet::cure_shown() const {
    const auto& shop = document_.shop();
    if (list() == "resins") {
        if (const auto* e = jig::find(shop.resins, entry())) return cure_plots(*e);
    } else if (list() == "surface_coats") {
        if (const auto* e = jig::find(shop.surface_coats, entry())) return cure_plots(*e);
    } else if (list() == "bonds") {
        if (const auto* e = jig::find(shop.bonds, entry()); e != nullptr && e->sets()) return cure_plots(*e);
    }
    return {};
}

void ShopSheet::fill_cure() {
    const auto shown = cure_shown();
    fit_->setText(shown.said);
    fit_->setVisible(!shown.said.isEmpty());
    gel_->setVisible(shown.gel.has_value());
    glass_->setVisible(shown.glass.has_value());
    if (shown.gel) gel_->show_plot(*shown.gel, *ink_, wording_);
    if (shown.glass) glass_->show_plot(*shown.glass, *ink_, wording_);
}

void ShopSheet::keep(const Shop& shop, const std::string& list) {
    write_text(list, write_own(shop, shipped_, list));
    document_.set_shop(shop_on_disk());
}

void ShopSheet::change(const QString& name, const Change& how) {
    try {
        // What was typed into the files since they were read is not written over.
        const auto now = shop_on_disk();
        const auto next = how(now);
        Before before{list(), text_on_disk(list()), {}, name};
        keep(next, list());
        before.after = text_on_disk(list());
        before_.push_back(std::move(before));
        emit said("Kept in your library: " + name + ".");
    } catch (const InputError& e) {
        emit said(message_of(e));
    }
    fill_entries();
}

void ShopSheet::take_back() {
    if (before_.empty()) return;
    const auto last = before_.back();
    try {
        if (text_on_disk(last.list) != last.after) {
            before_.clear();
            fill_figures();
            emit said("Something else has written to " + path_of(last.list) + " since: it stays as it is.");
            return;
        }
        write_text(last.list, last.text.value_or(""));
        document_.set_shop(shop_on_disk());
        before_.pop_back();
        emit said("Taken back: " + last.name + ".");
    } catch (const InputError& e) {
        emit said(message_of(e));
    }
    fill_entries();
}

void ShopSheet::add_copy() {
    const auto name = name_->text().trimmed();
    const auto names = entry_names(document_.shop(), list());
    const auto had = before_.size();
    change("a new " + QString::fromStdString(one_of_list(list())) + ", " + name,
           [&](const Shop& s) { return with_copy(s, list(), entry(), name.toStdString()); });
    if (before_.size() == had) return;
    name_->clear();
    show_entry(lists_->currentData().toString(), name);
}

void ShopSheet::type(int row, int column, const QString& text) {
    if (row < 0 || row >= static_cast<int>(figures_.size())) return;
    const auto f = figures_[static_cast<std::size_t>(row)];
    const auto said_name = QString::fromStdString(f.name) + " of " + QString::fromStdString(entry());
    auto origin = figure_origin(document_.shop(), list(), entry(), f.key);
    const auto refuse = [&](const QString& why) {
        emit said(why);
        fill_figures();
    };
    if (column == kFrom) {
        OriginKind kind{};
        if (const auto why = pick(kind, text)) return refuse(*why);
        origin.kind = kind;
        origin.date = QDate::currentDate().toString("yyyy-MM").toStdString();
        return change("where " + said_name + " comes from",
                      [&](const Shop& s) { return with_origin(s, list(), entry(), f.key, origin); });
    }
    if (column != kValue) return;
    Json value;
    const auto typed = text.trimmed();
    switch (f.is) {
        case Is::list:
            return refuse("How many there are is changed by the buttons below.");
        case Is::flag:
            if (typed != "yes" && typed != "no") return refuse("Yes or no?");
            value = typed == "yes";
            break;
        case Is::text:
            value = text.toStdString();
            break;
        case Is::word: {
            const auto at = std::find(f.said.begin(), f.said.end(), typed.toStdString());
            if (at == f.said.end()) return refuse(QString("\"%1\" is none of its words").arg(typed));
            value = f.words[static_cast<std::size_t>(at - f.said.begin())];
            break;
        }
        case Is::whole:
        case Is::number: {
            if (typed.isEmpty() && !f.needed) break;
            auto bare = typed.toStdString();
            // A unit that no kind has is only for reading.
            if (f.kind == Kind::factor && !f.unit.empty() && bare.ends_with(f.unit))
                bare.resize(bare.size() - f.unit.size());
            const auto read = read_quantity(f.kind, bare, wording_);
            if (!read) return refuse(QString("\"%1\" is no %2").arg(typed, QString::fromStdString(f.name)));
            if (f.is == Is::whole && *read != std::round(*read)) return refuse("A whole number goes here.");
            if (f.low < f.high && (*read < f.low || *read > f.high)) {
                auto low = f, high = f;
                low.is = high.is = Is::number;
                low.value = f.low;
                high.value = f.high;
                return refuse(QString("%1 lies outside of %2 to %3")
                                  .arg(typed, text_of_figure(low), text_of_figure(high)));
            }
            if (f.is == Is::whole)
                value = static_cast<int>(std::lround(*read));
            else
                value = *read;
        }
    }
    change(said_name, [&](const Shop& s) {
        return with_figure(s, list(), entry(), f.pointer, value, typed_now(origin));
    });
}

}  // namespace jig::app
