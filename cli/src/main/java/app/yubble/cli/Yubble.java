package app.yubble.cli;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.media.recipe.BadRecipeException;
import java.io.PrintWriter;
import java.nio.charset.Charset;
import java.nio.file.NoSuchFileException;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Entry point. Exit codes: 0 done, 2 wrong use, 3 the input cannot be read, 1 anything else. */
@Command(
        name = "yubble",
        description = "Refocuses photos and clips.",
        mixinStandardHelpOptions = true,
        subcommands = {DepthCommand.class, RefocusCommand.class, ClipCommand.class, TrackCommand.class})
public final class Yubble implements Runnable {
    static final int WRONG_USE = 2;
    static final int UNREADABLE = 3;

    @Spec
    private CommandSpec spec;

    /** Made by the command line parser, which fills the fields in. */
    @SuppressWarnings("NullAway.Init")
    public Yubble() {}

    @Override
    public void run() {
        throw new ParameterException(spec.commandLine(), "say what to do: depth, refocus, clip or track");
    }

    public static void main(String[] arguments) {
        System.setProperty("java.awt.headless", "true");
        System.exit(run(new PrintWriter(System.err, true, Charset.defaultCharset()), arguments));
    }

    static int run(PrintWriter err, String... arguments) {
        CommandLine line = new CommandLine(new Yubble()).setErr(err);
        line.setParameterExceptionHandler((fault, given) -> {
            fault.getCommandLine().getErr().println("yubble: " + fault.getMessage());
            return WRONG_USE;
        });
        line.setExecutionExceptionHandler((fault, command, given) -> {
            command.getErr().println("yubble: " + message(fault));
            return codeOf(fault);
        });
        return line.execute(arguments);
    }

    private static int codeOf(Exception fault) {
        if (fault instanceof WrongUseException || fault instanceof BadRecipeException) {
            return WRONG_USE;
        }
        boolean input = fault instanceof UnreadablePictureException
                || fault instanceof DepthShapeException
                || fault instanceof UnreadableInputException;
        return input ? UNREADABLE : 1;
    }

    private static String message(Exception fault) {
        if (fault instanceof NoSuchFileException missing) {
            return missing.getFile() + ": there is no such file or folder";
        }
        String said = fault.getMessage();
        return said == null ? fault.toString() : said;
    }
}
