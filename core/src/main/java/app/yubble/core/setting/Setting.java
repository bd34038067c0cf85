package app.yubble.core.setting;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * Declares a component of a record as a setting of the recipe. Of several names the first is the usual one; texts and lists are usually
 * empty.
 */
@Target(ElementType.RECORD_COMPONENT)
@Retention(RetentionPolicy.RUNTIME)
public @interface Setting {
    /** What it does, as the end of a sentence: "how round the blades are". */
    String means();

    /** Its name on a control, and of a change of it in the history; empty when it is never changed alone. */
    String called() default "";

    double least() default 0;

    double most() default 1;

    /** Whether {@link #most} itself is excluded. */
    boolean below() default false;

    /** By how much sums of rounded numbers may pass the ends of the range. */
    double slack() default 0;

    /** Of a number; 1 is true for what is true or false. */
    double usual() default 0;

    /** The component that decides what is usual; its names are an enum that is {@link Usual}. */
    String usualBy() default "";

    Unit unit() default Unit.NONE;

    /** Its name in files where that is not the component's. */
    String written() default "";
}
