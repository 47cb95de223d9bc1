-- A model can be scaled, laid and turned; until now it was as its file had it.
update revision
    set content = substring(content, 1, length(content) - 1)
        || ',"placement":{"scaleX":1.0,"scaleY":1.0,"scaleZ":1.0,"downX":0.0,"downY":0.0,"downZ":-1.0,"turn":0.0}}'
    where owner like 'plan-%';
