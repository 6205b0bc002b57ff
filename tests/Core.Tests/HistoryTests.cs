using Emendum.Core.Jobs;
using Xunit;

namespace Emendum.Core.Tests;

public sealed class HistoryTests
{
    private static readonly Author A = new("Nora", new Guid(1, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0])),
        B = new("Nora", new Guid(2, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0])),
        C = new("Idris", new Guid(3, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0]));

    private static History Of(params (string Name, Author By)[] entries)
    {
        var (history, version) = (History.Empty, 0L);
        foreach (var (name, by) in entries)
        {
            version++;
            history = history.With(version, name, by, Reverses(history, name, by), true);
        }
        return history;
    }

    private static long? Reverses(History history, string name, Author by) =>
        name switch
        {
            History.Undo => history.NextUndo(by)?.Version,
            History.Redo => history.NextRedo(by)?.Version,
            _ => null,
        };

    [Fact]
    public void Undo_and_redo_go_step_by_step_and_name_the_command()
    {
        var two = Of(("addPlace", A), ("addWork", A), ("undo", A));
        Assert.Equal(new Undoable(1, "addPlace"), two.NextUndo(A));
        Assert.Equal(new Undoable(3, "addWork"), two.NextRedo(A));
        var back = two.With(4, "redo", A, 3, true);
        Assert.Equal(new Undoable(4, "addWork"), back.NextUndo(A));
        Assert.Null(back.NextRedo(A));
        // Taken back once more, it is the entry that took it back which is reversed.
        Assert.Equal(new Undoable(5, "addWork"), back.With(5, "undo", A, 4, true).NextRedo(A));
    }

    [Fact]
    public void A_new_command_forgets_what_was_taken_back_and_one_that_changed_nothing_does_not()
    {
        var taken = Of(("addPlace", A), ("undo", A));
        Assert.Null(taken.With(3, "addWork", A, null, true).NextRedo(A));
        Assert.Equal(2, taken.With(3, "addWork", A, null, false).NextRedo(A)!.Version);
    }

    [Fact]
    public void Each_window_and_each_person_has_their_own()
    {
        var all = Of(("addPlace", A), ("addWork", B), ("setNote", C), ("undo", A));
        Assert.Null(all.NextUndo(A));
        Assert.Equal("addWork", all.NextUndo(B)!.Did);
        Assert.Equal("setNote", all.NextUndo(C)!.Did);
        Assert.Null(all.NextRedo(B));
        // A command made elsewhere does not forget what was taken back here.
        Assert.Equal("addPlace", all.With(5, "setCells", B, null, true).NextRedo(A)!.Did);
    }

    [Fact]
    public void With_none_of_ones_own_left_the_latest_of_ones_closed_windows_is_offered_and_put_back_here()
    {
        var left = Of(("addPlace", B), ("addWork", B), ("setNote", C));
        Assert.Null(left.LeftBehind(A, _ => true));
        Assert.Equal(new Undoable(2, "addWork"), left.LeftBehind(A, _ => false));
        // Never somebody else's, and none while there is one of one's own.
        Assert.Null(left.LeftBehind(new("Wyn", A.Client), _ => false));
        Assert.Null(left.With(4, "setCells", A, null, true).LeftBehind(A, _ => false));
        var taken = left.With(4, "undo", A, 2, true);
        Assert.Equal(new Undoable(1, "addPlace"), taken.NextUndo(B));
        Assert.Equal(new Undoable(4, "addWork"), taken.NextRedo(A));
        Assert.Equal(new Undoable(5, "addWork"), taken.With(5, "redo", A, 4, true).NextUndo(A));
    }

    [Fact]
    public void An_entry_costs_the_same_however_many_there_are()
    {
        var history = History.Empty;
        long Cost(long version)
        {
            var before = GC.GetAllocatedBytesForCurrentThread();
            history = history.With(version, "addPlace", A, null, true);
            return GC.GetAllocatedBytesForCurrentThread() - before;
        }
        Cost(1);
        var early = Cost(2);
        for (var i = 3; i < 20_000; i++)
            Cost(i);
        Assert.InRange(Cost(20_000), 0, early);
    }
}
