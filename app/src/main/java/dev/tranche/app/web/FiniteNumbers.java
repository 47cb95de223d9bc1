package dev.tranche.app.web;

import org.springframework.beans.propertyeditors.CustomNumberEditor;
import org.springframework.web.bind.WebDataBinder;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.InitBinder;

/** Numbers that addresses and forms carry: what Java takes for one and no machine has, such as NaN, is none. */
@ControllerAdvice
class FiniteNumbers {
    @InitBinder
    void register(WebDataBinder binder) {
        binder.registerCustomEditor(Double.class, new Editor());
        binder.registerCustomEditor(double.class, new Editor());
    }

    private static final class Editor extends CustomNumberEditor {
        Editor() {
            super(Double.class, true);
        }

        @Override
        public void setAsText(String said) {
            super.setAsText(said);
            if (getValue() instanceof Double number && !Double.isFinite(number)) {
                throw new NumberFormatException(said);
            }
        }
    }
}
