// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/forms/page_export.h"

#include "app/drawn/picture.h"
#include "app/forms/ask.h"
#include "app/say.h"
#include "app/session/qtext.h"
#include "app/session/session.h"
#include "core/base/input_error.h"
#include "store/atomic_file.h"

#include <QFileInfo>

namespace ibuki {

bool exportPage(Session& session, ExportedPage& page, const QString& path) {
    const QString ending = QFileInfo(path).suffix().toLower();
    try {
        std::string bytes;
        if (ending == "csv")
            bytes = page.csv();
        else if (ending == "png")
            bytes = pngOf(*page.picture()).toStdString();
        else
            bytes = svgOf(*page.picture()).toStdString();
        writeFileAtomically(path.toStdString(), bytes);
    } catch (const InputError& error) {
        session.refuse(error);
        return false;
    }
    session.post(say("Written: %1").arg(path));
    return true;
}

void askExport(Session& session, ExportedPage& page) {
    if (page.csv().empty()) {
        session.post(say("There is nothing to export on this page yet."));
        return;
    }
    const QString study = session.study() ? qtext(session.study()->name) : say("study");
    askFile(&page,
            {FileWish::Kind::save, say("Export this page"), study + " " + page.name().toLower() + ".svg",
             say("Drawing (*.svg);;Picture (*.png);;Its data (*.csv)")},
            [&session, &page](const QString& path) { exportPage(session, page, path); });
}

} // namespace ibuki
