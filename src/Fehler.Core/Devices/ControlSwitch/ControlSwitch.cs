using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>What push-buttons and emergency stops have in common: a contact block behind an operator.</summary>
internal abstract partial class ControlSwitch : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class BlockPlate
    {
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Contacts by terminal numbers; last digits 1-2 open, 3-4 close"
        );
    }

    private protected abstract string DefaultContact { get; }

    public override ImmutableArray<ParameterSpec> Parameters =>
        [BlockPlate.Contacts with { Default = ParameterValue.FromWords([DefaultContact]) }];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [.. device[BlockPlate.Contacts].Select(Element.FromContact)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
}
