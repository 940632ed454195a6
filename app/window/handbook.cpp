#include "app/window/handbook.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <QBoxLayout>
#include <QFile>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QRegularExpression>
#include <QTextBlock>
#include <QTextBrowser>
#include <QTextDocument>
#include <QUrl>

#include "app/theme/ink.hpp"

namespace jig::app {
namespace {

constexpr int kPage = Qt::UserRole, kFind = Qt::UserRole + 1;

/// Pages in their order: the start, the stages, then what serves them all.
std::vector<Handbook::Heading> pages() {
    std::vector<Handbook::Heading> out{{"start", "Start here"}};
    for (const auto& stage : kStages) out.push_back({stage.key, stage.said});
    out.push_back({"library", "The shop's library"});
    out.push_back({"glossary", "Words of the trade"});
    out.push_back({"keys", "Keys"});
    return out;
}

QString read_page(const QString& folder, const QString& page) {
    QFile file(QString("%1/%2.md").arg(folder, page));
    if (!file.open(QIODevice::ReadOnly)) return {};
    // What a page says to the tests is nothing to read.
    static const QRegularExpression aside("<!--[^>]*-->\\n?");
    return QString::fromUtf8(file.readAll()).remove(aside);
}

}  // namespace

Handbook::Handbook(const QString& folder, QWidget* parent) : QWidget(parent, Qt::Window), folder_(folder) {
    setObjectName("handbook");
    setWindowTitle("Handbook – Jig Shell");
    resize(900, 720);
    auto* across = new QHBoxLayout(this);
    auto* left = new QVBoxLayout();
    across->addLayout(left);
    field_ = new QLineEdit(this);
    field_->setObjectName("handbook-search");
    field_->setPlaceholderText("search the handbook");
    field_->setAccessibleName("Search the handbook");
    field_->setClearButtonEnabled(true);
    list_ = new QListWidget(this);
    list_->setObjectName("handbook-contents");
    list_->setAccessibleName("Contents");
    list_->setWordWrap(true);
    left->addWidget(field_);
    left->addWidget(list_, 1);
    for (QWidget* w : {static_cast<QWidget*>(field_), static_cast<QWidget*>(list_)})
        w->setFixedWidth(static_cast<int>(250 * std::sqrt(text_scale())));
    text_ = new QTextBrowser(this);
    text_->setObjectName("handbook-page");
    text_->setAccessibleName("Page");
    text_->setOpenLinks(false);
    text_->setSearchPaths({folder_});
    across->addWidget(text_, 1);
    connect(field_, &QLineEdit::textChanged, this, &Handbook::search);
    connect(list_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
        if (item != nullptr) show_page(item->data(kPage).toString(), item->data(kFind).toString());
    });
    connect(text_, &QTextBrowser::anchorClicked, this, [this](const QUrl& link) {
        const auto page = link.fileName().section('.', 0, 0);
        if (!text_of(page).isEmpty()) open(page);
    });
    list_contents();
}

std::vector<Handbook::Heading> Handbook::headings(const QString& folder) {
    // Files of the handbook do not change while the program runs.
    static std::map<QString, std::vector<Heading>> known;
    auto& out = known[folder];
    if (!out.empty()) return out;
    for (const auto& page : pages()) {
        for (const auto& line : read_page(folder, page.page).split('\n')) {
            if (line.startsWith("#")) out.push_back({page.page, line.section(' ', 1).trimmed()});
        }
    }
    return out;
}

QString Handbook::text_of(const QString& page) const {
    return page == "keys" ? keys_ : read_page(folder_, page);
}

void Handbook::set_keys(const std::vector<Act>& acts, const std::vector<OwnKey>& own) {
    QString out = "# Keys\n\n## Everywhere\n\n| keys | what they do |\n| --- | --- |\n";
    for (const auto& act : acts) {
        if (act.keys.isEmpty()) continue;
        QStringList said;
        for (const auto& key : act.keys) said << key.toString(QKeySequence::NativeText).replace('|', "\\|");
        out += QString("| %1 | %2 |\n").arg(said.join(" or "), act.name);
    }
    QString where;
    for (const auto& key : own) {
        if (where != key.where) {
            where = key.where;
            out += QString("\n## %1\n\n| keys | what they do |\n| --- | --- |\n").arg(where);
        }
        out += QString("| %1 | %2 |\n")
                   .arg(QString::fromUtf8(key.keys).replace('<', "&lt;").replace('>', "&gt;"), key.does);
    }
    out += "\nEvery other action has its place in *find or do* (Ctrl+K).\n";
    if (out == keys_) return;
    keys_ = out;
    if (page_ == "keys") show_page(page_, {});
}

void Handbook::list_contents() {
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& page : pages()) {
        auto* item = new QListWidgetItem(page.said, list_);
        item->setData(kPage, page.page);
        if (page.page == page_) list_->setCurrentItem(item);
    }
}

void Handbook::search(const QString& text) {
    const auto wanted = text.simplified();
    if (wanted.isEmpty()) return list_contents();
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const auto& page : pages()) {
        QString heading = page.said;
        for (const auto& line : text_of(page.page).split('\n')) {
            if (line.startsWith("#")) heading = line.section(' ', 1).trimmed();
            const auto at = line.indexOf(wanted, 0, Qt::CaseInsensitive);
            if (at < 0) continue;
            auto snippet = line.mid(std::max<qsizetype>(0, at - 24), 70)
                               .remove('*')
                               .remove('#')
                               .remove('|')
                               .simplified();
            auto* item =
                new QListWidgetItem(QString("%1 · %2\n… %3 …").arg(page.said, heading, snippet), list_);
            item->setData(kPage, page.page);
            item->setData(kFind, wanted);
        }
    }
    if (list_->count() == 0) new QListWidgetItem("nothing of that name", list_);
}

void Handbook::show_page(const QString& page, const QString& find) {
    const auto text = text_of(page);
    if (text.isEmpty() && page.isEmpty()) return;
    page_ = page;
    text_->setFont(word_font(11));
    text_->setMarkdown(text.isEmpty() ? QString("The handbook is not installed here.") : text);
    fit_pictures();
    text_->moveCursor(QTextCursor::Start);
    if (!find.isEmpty()) text_->find(find);
}

/// Pictures of the demos are as wide as the page lets them be.
void Handbook::fit_pictures() {
    auto* document = text_->document();
    const double room = text_->viewport()->width() - 24;
    for (auto block = document->begin(); block.isValid(); block = block.next()) {
        for (auto part = block.begin(); !part.atEnd(); ++part) {
            const auto fragment = part.fragment();
            if (!fragment.charFormat().isImageFormat()) continue;
            auto format = fragment.charFormat().toImageFormat();
            format.setWidth(std::max(100.0, room));
            QTextCursor cursor(document);
            cursor.setPosition(fragment.position());
            cursor.setPosition(fragment.position() + fragment.length(), QTextCursor::KeepAnchor);
            cursor.setCharFormat(format);
            break;
        }
    }
}

void Handbook::open(const QString& page, const QString& heading) {
    field_->clear();
    page_ = page;
    list_contents();
    show_page(page, heading);
    show();
    raise();
    activateWindow();
    text_->setFocus();
}

void Handbook::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape)
        close();
    else if (event->matches(QKeySequence::Find))
        field_->setFocus();
    else
        QWidget::keyPressEvent(event);
}

void Handbook::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fit_pictures();
}

}  // namespace jig::app
