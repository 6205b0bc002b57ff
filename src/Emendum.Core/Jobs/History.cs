using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>Who makes an edit, and where: a person in one window of a browser. What is done there is taken back there.</summary>
/// <param name="Person">Who.</param>
/// <param name="Client">Id of the window; empty for edits from before windows were told apart.</param>
public readonly record struct Author(string Person, Guid Client);

/// <summary>An entry of the log that can be taken back, and what its command was called.</summary>
public sealed record Undoable(long Version, string Did);

/// <summary>What each author can take back and put back (architecture decision 6): a command clears what was taken back, undo and redo move steps across. Immutable; each entry of the log
/// makes the next in a number of steps that does not grow with it.</summary>
public sealed class History
{
    /// <summary>What an entry that takes back, and one that puts back, is called.</summary>
    public const string Undo = "undo",
        Redo = "redo";

    /// <summary>Before the first entry.</summary>
    public static readonly History Empty = new(ImmutableDictionary<Author, Stacks>.Empty);

    private sealed record Stacks(ImmutableStack<Undoable> Undo, ImmutableStack<Undoable> Redo)
    {
        public static readonly Stacks Empty = new([], []);
    }

    private readonly ImmutableDictionary<Author, Stacks> of;

    private History(ImmutableDictionary<Author, Stacks> of) => this.of = of;

    /// <summary>The history with one entry more. One that changed nothing cannot be taken back; taking back what is no part of a job any more changes nothing, and is done with.</summary>
    /// <param name="version">The job's version after it.</param>
    /// <param name="name">What was done.</param>
    /// <param name="by">By whom.</param>
    /// <param name="reverses">The entry that an undo or redo reverses; null for the author's last.</param>
    /// <param name="changed">Whether it changed anything.</param>
    public History With(long version, string name, Author by, long? reverses, bool changed)
    {
        if (!changed && name is not (Undo or Redo))
            return this;
        switch (name)
        {
            case Undo:
                // Usually the author's own; otherwise one that was left by a window that is closed.
                var owner = reverses is { } taken ? OwnerOf(taken, by) : by;
                var left = At(owner);
                var without = of.SetItem(owner, left with { Undo = left.Undo.Pop(out var step) });
                var own = without.GetValueOrDefault(by, Stacks.Empty);
                return new(without.SetItem(by, own with { Redo = own.Redo.Push(new(version, step.Did)) }));
            case Redo:
                var was = At(by);
                return new(of.SetItem(by, new(was.Undo.Push(new(version, was.Redo.Peek().Did)), was.Redo.Pop())));
            default:
                return new(of.SetItem(by, new(At(by).Undo.Push(new(version, name)), [])));
        }
    }

    private Stacks At(Author author) => of.GetValueOrDefault(author, Stacks.Empty);

    private Author OwnerOf(long step, Author by)
    {
        if (NextUndo(by)?.Version == step)
            return by;
        foreach (var (author, stacks) in of)
            if (Top(stacks.Undo)?.Version == step)
                return author;
        return by;
    }

    /// <summary>What undo would take back for an author; null for nothing.</summary>
    public Undoable? NextUndo(Author author) => Top(At(author).Undo);

    /// <summary>What redo would put back for an author; null for nothing.</summary>
    public Undoable? NextRedo(Author author) => Top(At(author).Redo);

    /// <summary>For an author with nothing of their own left to take back: the same person's latest of a window that is closed; null for nothing.</summary>
    /// <param name="author">Who asks.</param>
    /// <param name="isOpen">Whether a window is open.</param>
    public Undoable? LeftBehind(Author author, Func<Guid, bool> isOpen)
    {
        if (NextUndo(author) is not null)
            return null;
        Undoable? latest = null;
        foreach (var (other, stacks) in of)
            if (
                other.Person == author.Person
                && Top(stacks.Undo) is { } step
                && step.Version > (latest?.Version ?? 0)
                && !isOpen(other.Client)
            )
                latest = step;
        return latest;
    }

    private static Undoable? Top(ImmutableStack<Undoable> steps) => steps.IsEmpty ? null : steps.Peek();
}
