// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shelf/cut_page.h"

#include "app/forms/ask.h"
#include "app/forms/entity_form.h"
#include "app/forms/number_field.h"
#include "app/forms/widgets.h"
#include "app/say.h"
#include "app/shelf/cut_print.h"
#include "app/shelf/sheet_preview.h"
#include "app/shelf/shelf_subject.h"
#include "store/paper/cut_svg.h"
#include "store/paper/sentences.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPrintDialog>
#include <QPrinter>
#include <QTableWidget>
#include <QVBoxLayout>

namespace ibuki {
namespace {

constexpr double leastOffcutMm = 10; ///< narrower rests are not worth keeping
constexpr double typicalKerfMm = 0.5;
constexpr const char* cuttingName = words::mark("Working out the cutting plan");
enum Column { name, width, length, thickness, count, flag };

QString cell(double value) { return numberText(value); }

} // namespace

CutPage::CutPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(makeTables(), 6);
    layout->addWidget(makeResult(), 6);
    soon_.setSingleShot(true);
    soon_.setInterval(120);
    connect(&soon_, &QTimer::timeout, this, &CutPage::replan);
    connect(&session_, &Session::projectChanged, this, [this] { started_ = false; });
}

bool CutPage::isWorking() const { return soon_.isActive() || session_.jobs().isRunning(cuttingName); }

QTableWidget* CutPage::makeTable(const QString& name, const QStringList& columns) {
    auto* table = new QTableWidget(0, static_cast<int>(columns.size()));
    table->setAccessibleName(name);
    table->setObjectName(name);
    table->setHorizontalHeaderLabels(columns);
    table->setTabKeyNavigation(false);
    table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->horizontalHeader()->setSectionResizeMode(Column::name, QHeaderView::Stretch);
    table->verticalHeader()->hide();
    table->setSelectionBehavior(QTableWidget::SelectRows);
    connect(table, &QTableWidget::itemChanged, this, &CutPage::replanSoon);
    return table;
}

QWidget* CutPage::makeTables() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    const auto row = [&](const QString& title, QTableWidget* table,
                         std::initializer_list<std::pair<QString, std::function<void()>>> actions) {
        auto* buttons = new QHBoxLayout;
        buttons->addWidget(cardTitle(title), 1);
        for (const auto& [text, action] : actions) {
            auto* one = button(text);
            connect(one, &QPushButton::clicked, this, action);
            buttons->addWidget(one);
        }
        layout->addLayout(buttons);
        layout->addWidget(table, 1);
    };
    pieces_ = makeTable(say("Pieces"), {say("piece"), say("width"), say("length"), say("thick"),
                                        say("how many"), say("may turn")});
    sheets_ = makeTable(say("Sheets"), {say("sheet"), say("width"), say("length"), say("thick"),
                                        say("how many"), say("off-cut")});
    row(say("Pieces, mm"), pieces_,
        {{say("From the bench"), [this] { fillFromBench(); }},
         {say("Add piece"),
          [this] {
              putRow(*pieces_, {say("piece"), "20", "20", "1", "1"}, true);
          }},
         {say("Remove piece"), [this] { removeRow(*pieces_); }}});
    row(say("Sheets, mm"), sheets_,
        {{say("From the shelf"), [this] { fillFromShelf(); }},
         {say("Add sheet"),
          [this] {
              origins_.emplace_back();
              putRow(*sheets_, {say("sheet"), "100", "100", "1", ""}, false);
          }},
         {say("Remove sheet"), [this] { removeRow(*sheets_); }}});
    layout->addWidget(makeSettings());
    return card(layout);
}

QWidget* CutPage::makeSettings() {
    auto* widget = new QWidget;
    auto* row = new QHBoxLayout(widget);
    row->setContentsMargins(0, 0, 0, 0);
    const auto field = [&](const QString& label, double typical) {
        auto* made = new NumberField(label, {0, false});
        made->show(typical);
        made->setFixedWidth(made->fontMetrics().horizontalAdvance("00.00") + 26);
        connect(made, &NumberField::valueEdited, this, &CutPage::replanSoon);
        row->addWidget(new QLabel(label));
        row->addWidget(made);
        return made;
    };
    kerf_ = field(say("Kerf, mm"), typicalKerfMm);
    margin_ = field(say("Margin, mm"), 0);
    offcutsFirst_ = new QCheckBox(say("Off-cuts first"));
    offcutsFirst_->setChecked(true);
    connect(offcutsFirst_, &QCheckBox::toggled, this, &CutPage::replanSoon);
    row->addWidget(offcutsFirst_);
    row->addStretch(1);
    return widget;
}

QWidget* CutPage::makeResult() {
    auto* layout = new QVBoxLayout;
    layout->setContentsMargins(14, 10, 14, 10);
    summary_ = new QLabel;
    summary_->setWordWrap(true);
    summary_->setAccessibleName(say("Cutting plan in words"));
    layout->addWidget(summary_);
    preview_ = new SheetPreview;
    layout->addWidget(preview_, 1);
    layout->addLayout(makeTurning());
    layout->addWidget(quietLabel(qtext(reasonAndAdvice(*cautionRule("BLADES")))));
    auto* row = new QHBoxLayout;
    save_ = button(say("Save drawing…"), say("SVG or PDF at exactly 1:1"), true);
    connect(save_, &QPushButton::clicked, this, [this] {
        askFile(this,
                {FileWish::Kind::save, say("Save the cutting plan"), say("cut.pdf"),
                 say("PDF, 1:1 (*.pdf);;SVG, 1:1 (*.svg)")},
                [this](const QString& path) {
                    if (saveDrawing(path)) session_.post(say("Written: %1").arg(path));
                });
    });
    print_ = button(say("Print…"), say("At 1:1; check the 50 mm ruler"));
    connect(print_, &QPushButton::clicked, this, &CutPage::printPlan);
    keep_ = button(say("It is cut"), say("Takes the sheets off the shelf and keeps the off-cuts"));
    connect(keep_, &QPushButton::clicked, this, &CutPage::keep);
    for (QPushButton* one : {save_, print_, keep_}) row->addWidget(one);
    row->addStretch(1);
    layout->addLayout(row);
    return card(layout);
}

/// From sheet to sheet.
QLayout* CutPage::makeTurning() {
    auto* turning = new QHBoxLayout;
    previous_ = button(say("Before"), say("The sheet before"));
    next_ = button(say("After"), say("The sheet after"));
    pageLabel_ = quietLabel();
    pageLabel_->setAlignment(Qt::AlignCenter);
    connect(previous_, &QPushButton::clicked, this, [this] {
        --page_;
        showPlan();
    });
    connect(next_, &QPushButton::clicked, this, [this] {
        ++page_;
        showPlan();
    });
    turning->addWidget(previous_);
    turning->addWidget(pageLabel_, 1);
    turning->addWidget(next_);
    return turning;
}

void CutPage::refresh() {
    // The first visit, and a visit after the project changed hands, starts from bench and shelf.
    if (!started_ && session_.isOpen()) {
        started_ = true;
        fillFromShelf();
        fillFromBench();
    }
    showPlan();
}

void CutPage::putRow(QTableWidget& table, const QStringList& cells, bool checked) {
    filling_ = true;
    const int row = table.rowCount();
    table.insertRow(row);
    for (int column = 0; column < cells.size(); ++column)
        table.setItem(row, column, new QTableWidgetItem(cells[column]));
    auto* box = new QTableWidgetItem;
    box->setFlags(Qt::ItemIsUserCheckable | Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    box->setCheckState(checked ? Qt::Checked : Qt::Unchecked);
    table.setItem(row, Column::flag, box);
    table.setCurrentCell(row, 0);
    filling_ = false;
    replanSoon();
}

void CutPage::removeRow(QTableWidget& table) {
    const int row = table.currentRow();
    if (row < 0) return;
    if (&table == sheets_) origins_.erase(origins_.begin() + row);
    table.removeRow(row);
    replanSoon();
}

void CutPage::fillFromBench() {
    const CautionSubject subject = shelfSubject(session_);
    pieces_->setRowCount(0);
    if (subject.material && subject.configuration)
        for (const CutPiece& piece :
             piecesFor(session_.document(), *subject.configuration, *subject.material, subject.site))
            putRow(*pieces_,
                   {qtext(piece.name), cell(piece.widthMm), cell(piece.lengthMm), cell(piece.thicknessMm),
                    QString::number(piece.count)},
                   piece.mayTurn);
    replanSoon();
}

void CutPage::fillFromShelf() {
    const CautionSubject subject = shelfSubject(session_);
    sheets_->setRowCount(0);
    origins_.clear();
    if (subject.material)
        for (const ShelfSheet& from : sheetsOf(session_.document(), *subject.material, session_.now())) {
            origins_.emplace_back(from);
            putRow(*sheets_,
                   {qtext(from.sheet.name), cell(from.sheet.widthMm), cell(from.sheet.lengthMm),
                    cell(from.sheet.thicknessMm),
                    from.sheet.count ? QString::number(*from.sheet.count) : QString()},
                   from.sheet.offcut);
        }
    replanSoon();
}

std::optional<double> CutPage::number(QTableWidget& table, int row, int column, const QString& what) {
    const QString text = table.item(row, column) ? table.item(row, column)->text() : QString();
    const auto value = numberFrom(text);
    if (!value || *value <= 0)
        complaint_ = say("%1, row %2, %3: \"%4\" is no number above 0. Write digits, such as 1.5.")
                         .arg(table.accessibleName())
                         .arg(row + 1)
                         .arg(what, text);
    return value && *value > 0 ? value : std::nullopt;
}

std::optional<CutJob> CutPage::job() {
    CutJob made;
    complaint_.clear();
    const auto size = [&](QTableWidget& table, int row, auto& to) {
        const auto w = number(table, row, Column::width, say("width"));
        const auto l = number(table, row, Column::length, say("length"));
        const auto t = number(table, row, Column::thickness, say("thick"));
        if (!w || !l || !t) return false;
        to.name = table.item(row, Column::name)->text().toStdString();
        to.widthMm = *w;
        to.lengthMm = *l;
        to.thicknessMm = *t;
        return true;
    };
    for (int row = 0; row < pieces_->rowCount(); ++row) {
        CutPiece piece;
        const auto many = number(*pieces_, row, Column::count, say("how many"));
        if (!size(*pieces_, row, piece) || !many) return std::nullopt;
        piece.count = static_cast<int>(*many);
        piece.mayTurn = pieces_->item(row, Column::flag)->checkState() == Qt::Checked;
        made.pieces.push_back(piece);
    }
    for (int row = 0; row < sheets_->rowCount(); ++row) {
        CutSheet sheet;
        if (!size(*sheets_, row, sheet)) return std::nullopt;
        if (!sheets_->item(row, Column::count)->text().trimmed().isEmpty()) { // empty: as many as needed
            const auto many = number(*sheets_, row, Column::count, say("how many"));
            if (!many) return std::nullopt;
            sheet.count = static_cast<int>(*many);
        }
        sheet.offcut = sheets_->item(row, Column::flag)->checkState() == Qt::Checked;
        made.sheets.push_back(sheet);
    }
    for (const NumberField* field : {kerf_, margin_})
        if (!field->value()) {
            complaint_ = field->complaint();
            return std::nullopt;
        }
    made.kerfMm = *kerf_->value();
    made.marginMm = *margin_->value();
    made.offcutsFirst = offcutsFirst_->isChecked();
    return made;
}

void CutPage::replanSoon() {
    if (!filling_) soon_.start();
}

void CutPage::replan() {
    const auto wanted = job();
    if (!wanted) {
        refuse(complaint_);
        return;
    }
    if (wanted->pieces.empty() || wanted->sheets.empty()) {
        refuse(wanted->pieces.empty()
                   ? say("No pieces yet. Take them from the bench's sites, or add them by hand.")
                   : say("No sheets yet. Choose a pad, a sheet or a film on the shelf whose lot states its "
                         "size, or "
                         "add a sheet by hand."));
        return;
    }
    planned_ = *wanted;
    if (!plan_) preview_->clear(say("Working out the plan…"));
    session_.jobs().startNewest<CutPlan>(
        cuttingName, this,
        [asked = *wanted](const std::stop_token&, const Progress&) { return planCuts(asked); },
        [this](CutPlan plan) {
            plan_ = std::move(plan);
            pages_ = cutPages(planned_, *plan_, say("Cutting plan"));
            page_ = 0;
            showPlan();
        },
        [this](const InputError& error) { refuse(saySentence(error)); });
}

void CutPage::refuse(const QString& why) {
    plan_.reset();
    pages_.clear();
    complaint_ = why;
    showPlan();
}

void CutPage::showPlan() {
    const int last = static_cast<int>(pages_.size()) - 1;
    page_ = std::clamp(page_, 0, std::max(0, last));
    previous_->setEnabled(page_ > 0);
    next_->setEnabled(page_ < last);
    for (QPushButton* one : {save_, print_, keep_}) one->setEnabled(!pages_.empty());
    if (pages_.empty()) {
        summary_->setText(plan_ ? say("Nothing could be placed.") : QString());
        preview_->clear(complaint_);
        pageLabel_->clear();
        return;
    }
    const CutLayout& layout = plan_->layouts[static_cast<std::size_t>(page_)];
    const CutRect part = drawnPart(planned_.sheets[layout.sheet]);
    preview_->show(pages_[static_cast<std::size_t>(page_)], {part.x, part.y, part.width, part.length});
    pageLabel_->setText(say("%1 of %2").arg(page_ + 1).arg(pages_.size()));
    QString words = say("%1 and %2, %3 % waste.")
                        .arg(sayMany("{count} full sheet", "{count} full sheets", plan_->fullSheets),
                             sayMany("{count} off-cut", "{count} off-cuts", plan_->offcutSheets))
                        .arg(100 * plan_->waste(), 0, 'f', 0);
    for (const auto& [piece, howMany] : plan_->missing)
        words += say(" %1 × %2 found no place: too little is left.")
                     .arg(howMany)
                     .arg(qtext(planned_.pieces[piece].name));
    summary_->setText(words);
}

bool CutPage::saveDrawing(const QString& path) {
    try {
        if (path.endsWith(".svg", Qt::CaseInsensitive))
            writeCutSvg(pages_, path);
        else
            writeCutPdf(pages_, path);
        return true;
    } catch (const InputError& error) {
        session_.refuse(error);
        return false;
    }
}

void CutPage::printPlan() {
    auto printer = std::make_shared<QPrinter>(QPrinter::HighResolution);
    auto* dialog = new QPrintDialog(printer.get(), this);
    connect(dialog, qOverload<QPrinter*>(&QPrintDialog::accepted), this,
            [this, printer, pages = pages_](QPrinter* chosen) { // the plan may be another by then
                if (!printCut(pages, *chosen))
                    session_.post(say("The printer did not take the pages. Look at it and try again."));
            });
    openDialog(dialog);
}

void CutPage::keep() {
    if (!plan_ || isWorking()) return; // the plan shown is not that of the tables
    const auto gone = [&](const std::optional<ShelfSheet>& from) {
        return from
               && (!session_.document().find(from->lot)
                   || (from->offcut && !session_.document().find(*from->offcut)));
    };
    if (std::any_of(origins_.begin(), origins_.end(), gone)) {
        session_.refuse(
            say("The shelf has changed since the sheets were taken from it. Press From the shelf again."));
        return;
    }
    Edit edit(session_.document(), titled("Cut pads"));
    const int kept = keepCut(edit, *plan_, origins_, leastOffcutMm, session_.now());
    const ChangeSet changes = edit.finish();
    if (changes.empty()) {
        session_.refuse(
            say("These sheets were typed here and stand on no shelf: there is nothing to take off."));
        return;
    }
    if (!session_.perform(changes)) return;
    session_.post(say("The shelf has less by what was cut; %1 off-cuts of at least %2 mm were kept.")
                      .arg(kept)
                      .arg(leastOffcutMm));
    fillFromShelf();
}

} // namespace ibuki
