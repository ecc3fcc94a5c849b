# Every word 40 % longer, fields, tags and entities left as they are: a made-up language for seeing what clips.
BEGIN { RS = "\001" } # the whole text, with the line it ends with
{ text = text $0 }
function longer(word,   extra, i) {
    extra = int(0.4 * length(word) + 0.999)
    if (length(word) < 2) return word
    for (i = 0; i < extra; ++i) word = word "o"
    return word
}
END {
    word = ""; depth = 0; entity = 0
    for (i = 1; i <= length(text); ++i) {
        c = substr(text, i, 1)
        if (c == "{" || c == "<") ++depth
        if (c == "&") entity = 1
        if (depth == 0 && !entity && c ~ /[A-Za-z]/) { word = word c; continue }
        out = out longer(word) c
        word = ""
        if ((c == "}" || c == ">") && depth > 0) --depth
        if (entity && c !~ /[A-Za-z&]/) entity = 0
    }
    printf "%s", out longer(word)
}
