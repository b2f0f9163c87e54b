namespace Fehler.Core.Circuits;

/// <summary>Which of a number of things hang together.</summary>
internal sealed class UnionFind(int count)
{
    private readonly int[] _parent = [.. Enumerable.Range(0, count)];

    public void Join(int a, int b) => _parent[Root(a)] = Root(b);

    /// <summary>The same number for all that hang together.</summary>
    public int[] Roots() => [.. Enumerable.Range(0, _parent.Length).Select(Root)];

    private int Root(int i)
    {
        while (_parent[i] != i)
        {
            i = _parent[i] = _parent[_parent[i]];
        }

        return i;
    }
}
