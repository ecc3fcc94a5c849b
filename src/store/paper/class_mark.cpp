// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/paper/class_mark.h"

namespace ibuki {

ClassMark classMark(MaterialClass kind) {
    switch (kind) {
    case MaterialClass::paste:
        return {"P", {}};
    case MaterialClass::putty:
        return {"U", {{-1, -0.4}, {1, -0.4}, {0.7, 0.8}, {-0.7, 0.8}}};
    case MaterialClass::gapPad:
        return {"G", {{-0.9, -0.9}, {0.9, -0.9}, {0.9, 0.9}, {-0.9, 0.9}}};
    case MaterialClass::sheet:
        return {"S", {{-1, -0.35}, {1, -0.35}, {1, 0.35}, {-1, 0.35}}};
    case MaterialClass::phaseChange:
        return {"C", {{0, -1}, {1, 0.8}, {-1, 0.8}}};
    case MaterialClass::liquidMetal:
        return {"L", {{-0.5, -0.9}, {0.5, -0.9}, {1, 0}, {0.5, 0.9}, {-0.5, 0.9}, {-1, 0}}};
    case MaterialClass::solder:
        return {"D", {{0, -1}, {1, 0}, {0, 1}, {-1, 0}}};
    case MaterialClass::unknown:
        return {"?", {{-1, -1}, {1, 1}, {1, -1}, {-1, 1}}};
    }
    return {"?", {}};
}

} // namespace ibuki
