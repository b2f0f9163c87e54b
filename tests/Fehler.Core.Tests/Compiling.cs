using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;

namespace Fehler.Core.Tests;

/// <summary>Compiles each circuit of the tests once.</summary>
internal static class Compiling
{
    private static readonly ConditionalWeakTable<Circuit, CompiledCircuit> Known = [];

    public static CompiledCircuit Compiled(this Circuit circuit) => Known.GetValue(circuit, c => c.Compile());
}
