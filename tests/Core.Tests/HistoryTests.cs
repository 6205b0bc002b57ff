using Emendum.Core.Jobs;
using Xunit;

namespace Emendum.Core.Tests;

public sealed class HistoryTests
{
    private static History Of(params (string Name, string Person, bool Changed)[] entries)
    {
        var (history, version) = (History.Empty, 0L);
        foreach (var (name, person, changed) in entries)
            history = history.With(++version, name, person, changed);
        return history;
    }

    [Fact]
    public void Undo_and_redo_go_step_by_step_and_name_the_command()
    {
        var two = Of(("addPlace", "a", true), ("addWork", "a", true), ("undo", "a", true));
        Assert.Equal(new Step(1, "addPlace"), two.NextUndo("a"));
        Assert.Equal(new Step(3, "addWork"), two.NextRedo("a"));
        var back = two.With(4, "redo", "a", true);
        Assert.Equal(new Step(4, "addWork"), back.NextUndo("a"));
        Assert.Null(back.NextRedo("a"));
        // Taken back once more, it is the entry that took it back which is reversed.
        Assert.Equal(new Step(5, "addWork"), back.With(5, "undo", "a", true).NextRedo("a"));
    }

    [Fact]
    public void A_new_command_forgets_what_was_taken_back_and_one_that_changed_nothing_does_not()
    {
        var taken = Of(("addPlace", "a", true), ("undo", "a", true));
        Assert.Null(taken.With(3, "addWork", "a", true).NextRedo("a"));
        Assert.Equal(2, taken.With(3, "addWork", "a", false).NextRedo("a")!.Version);
    }

    [Fact]
    public void Each_person_has_their_own()
    {
        var both = Of(("addPlace", "a", true), ("addWork", "b", true), ("undo", "a", true));
        Assert.Null(both.NextUndo("a"));
        Assert.Equal("addWork", both.NextUndo("b")!.Did);
        Assert.Null(both.NextRedo("b"));
        Assert.Null(both.NextUndo("c"));
    }
}
