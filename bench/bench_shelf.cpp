// SPDX-License-Identifier: GPL-3.0-or-later
// How long the shelf keeps the hand waiting: 2,000 lots listed, found and drawn; a dose on the slider; sixty
// pieces laid out. A frame of a 60 Hz screen, 16.7 ms, stands beside each as the measure.

#include "app/drawn/theme.h"
#include "app/shelf/shelf_board.h"
#include "core/base/random.h"
#include "core/domain/edit.h"
#include "core/domain/mount.h"
#include "core/shelf/cut.h"
#include "core/shelf/dose.h"
#include "support/stopwatch.h"

#include <QApplication>
#include <QScrollArea>
#include <cmath>

using namespace ibuki;

namespace {

Document stocked(int lots) {
    Document document;
    Edit edit(document, "stock");
    for (int i = 0; i < lots / 4; ++i) {
        Material material;
        material.name = "Tern " + std::to_string(i);
        material.kind = static_cast<MaterialClass>(i % 6);
        const Id<Material> id = edit.add(material);
        for (int k = 0; k < 4; ++k) {
            Lot lot;
            lot.material = id;
            lot.name = material.name + ", tube " + std::to_string(k + 1);
            lot.supplier = k % 2 ? "harbour chandler" : "ship's stores";
            lot.content = 10;
            lot.remaining = 1 + (i + 3 * k) % 9;
            lot.price = 5 + k;
            lot.currency = "NOK";
            Application application; // a mount took from each
            application.lot = edit.add(lot);
            application.amount = Gram{0.1};
            edit.add(application);
        }
    }
    apply(document, edit.finish());
    return document;
}

CutJob sixtyPieces(int seed) {
    Random random(static_cast<std::uint64_t>(seed));
    CutJob job;
    job.sheets = {{"sheet", 150, 150, 1, {}, false}};
    for (int i = 0; i < 60; ++i)
        job.pieces.push_back({"piece", 4 + std::floor(30 * random.uniform()),
                              4 + std::floor(30 * random.uniform()), 1, 1, true});
    return job;
}

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    applyTheme(application, Shade::light);
    const Document document = stocked(2000);
    Site face;
    face.width = face.length = Millimetre{34};
    std::vector<ShelfItem> items;
    bench::time("2,000 lots, as many mounts: priced, checked, listed", 7,
                [&](int) { items = shelfItems(document, &face, {}); });
    std::vector<std::size_t> chosen;
    bench::time("2,000 lots: found by a typed word and ordered", 21, [&](int i) {
        chosen = shelfSelection(items, i % 2 ? "harbour tern 1" : "", {}, ShelfOrder::left);
    });
    auto* board = new ShelfBoard;
    QScrollArea scroll;
    scroll.setWidgetResizable(true);
    scroll.setWidget(board);
    scroll.resize(640, 480);
    board->show(items);
    scroll.show();
    QCoreApplication::processEvents();
    QImage picture(640, 480, QImage::Format_ARGB32_Premultiplied);
    bench::time("2,000 lots: one picture while scrolling", 41,
                [&](int i) { board->render(&picture, QPoint(), QRegion(0, 1000 * i, 640, 480)); });
    const DoseInput input{34, 34, 35, 2.7, 0.5, 8.66, Pattern::cross, 0};
    bench::time("a dose spread on 34 x 34 mm at 0.1 mm", 21,
                [&](int i) { spread(spreadInput(input, 20 + 2 * i)); });
    bench::time("60 pieces laid out", 9, [&](int i) { planCuts(sixtyPieces(i)); });
    return 0;
}
