// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/header_roles.h"
#include "core/domain/mount.h"

namespace ibuki {

void rememberRoles(Edit& edit, const std::string& fingerprint, const RoleMap& roles) {
    for (const auto& [column, role] : roles) {
        HeaderRole reported{{}, fingerprint, column, role};
        for (const HeaderRole* known : edit.document().where(&HeaderRole::fingerprint, fingerprint))
            if (known->column == column) reported.id = known->id;
        if (!reported.id)
            edit.add(reported);
        else if (*edit.document().find(reported.id) != reported)
            edit.put(reported);
    }
}

std::map<std::string, RoleMap> rememberedRoles(const Document& document) {
    std::map<std::string, RoleMap> remembered;
    for (const auto& [id, reported] : document.all<HeaderRole>())
        remembered[reported.fingerprint][reported.column] = reported.role;
    return remembered;
}

} // namespace ibuki
