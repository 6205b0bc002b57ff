using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>An entry of the log that can be taken back, and what its command was called.</summary>
public sealed record Step(long Version, string Did);

/// <summary>What each person can take back and put back (architecture decision 6): a command clears what was taken back, undo and redo move steps across. Immutable; each entry of the log
/// makes the next in a constant number of steps.</summary>
public sealed class History
{
    /// <summary>What an entry that takes back, and one that puts back, is called.</summary>
    public const string Undo = "undo",
        Redo = "redo";

    /// <summary>Before the first entry.</summary>
    public static readonly History Empty = new(ImmutableDictionary<string, Stacks>.Empty);

    private sealed record Stacks(ImmutableStack<Step> Undo, ImmutableStack<Step> Redo)
    {
        public static readonly Stacks Empty = new([], []);
    }

    private readonly ImmutableDictionary<string, Stacks> of;

    private History(ImmutableDictionary<string, Stacks> of) => this.of = of;

    /// <summary>The history with one entry more. One that changed nothing cannot be taken back.</summary>
    public History With(long version, string name, string person, bool changed)
    {
        if (!changed)
            return this;
        var was = of.GetValueOrDefault(person, Stacks.Empty);
        return new(
            of.SetItem(
                person,
                name switch
                {
                    Undo => new(was.Undo.Pop(out var taken), was.Redo.Push(new(version, taken.Did))),
                    Redo => new(was.Undo.Push(new(version, was.Redo.Peek().Did)), was.Redo.Pop()),
                    _ => new(was.Undo.Push(new(version, name)), []),
                }
            )
        );
    }

    /// <summary>What undo would take back for a person; null for nothing.</summary>
    public Step? NextUndo(string person) => Top(of.GetValueOrDefault(person, Stacks.Empty).Undo);

    /// <summary>What redo would put back for a person; null for nothing.</summary>
    public Step? NextRedo(string person) => Top(of.GetValueOrDefault(person, Stacks.Empty).Redo);

    private static Step? Top(ImmutableStack<Step> steps) => steps.IsEmpty ? null : steps.Peek();
}
