using Microsoft.AspNetCore.Identity;

namespace Fehler.Data;

/// <summary>What a person may do beyond looking.</summary>
[Flags]
public enum Rights
{
    /// <summary>Look only.</summary>
    None = 0,

    /// <summary>An electrician: jobs, readings, repairs.</summary>
    Jobs = 1,

    /// <summary>A planner: circuits, register, plan, spares.</summary>
    Planning = 2,

    /// <summary>An administrator: people, devices, backup.</summary>
    Administration = 4,

    /// <summary>Everything.</summary>
    All = Jobs | Planning | Administration,
}

/// <summary>Somebody who signs in. <see cref="IdentityUser{TKey}.UserName"/> is the name that stands in the journals.</summary>
public sealed class Person : IdentityUser<Guid>
{
    /// <summary>What this person may do.</summary>
    public Rights Rights { get; set; }

    /// <summary>Live tests and closing a job need a second person (an apprentice).</summary>
    public bool NeedsSecond { get; set; }

    /// <summary>Hash of the PIN for tablets that an administrator trusts; null: none is set.</summary>
    public string? PinHash { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    /// <summary>When this person was taken out; the name stays in the journals unless it was asked to be replaced.</summary>
    public DateTimeOffset? RemovedAt { get; set; }

    /// <summary>The name.</summary>
    public string Name => UserName ?? "";
}

/// <summary>A session of a browser: the cookie holds a key whose hash is here, and nothing else.</summary>
public sealed class SessionRow
{
    public required string KeyHash { get; set; }
    public Guid PersonId { get; set; }
    public Person? Person { get; set; }

    /// <summary>What it runs on: a trusted device's name, or what the browser says of itself.</summary>
    public required string Device { get; set; }
    public DateTimeOffset BeganAt { get; set; }
    public DateTimeOffset LastSeen { get; set; }
    public DateTimeOffset Expires { get; set; }
}

/// <summary>A tablet on which people may sign in with a PIN.</summary>
public sealed class DeviceRow
{
    public Guid Id { get; set; }
    public required string Name { get; set; }
    public required string KeyHash { get; set; }
    public required string TrustedBy { get; set; }
    public DateTimeOffset TrustedAt { get; set; }
}

/// <summary>A token with which a program acts for a person.</summary>
public sealed class TokenRow
{
    public Guid Id { get; set; }
    public Guid PersonId { get; set; }
    public Person? Person { get; set; }
    public required string Name { get; set; }
    public required string KeyHash { get; set; }

    /// <summary>What it may do; never more than its person.</summary>
    public Rights Rights { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
    public DateTimeOffset? Expires { get; set; }
    public DateTimeOffset? LastUsed { get; set; }
}

/// <summary>Something that matters for security, as it happened.</summary>
public sealed class SecurityEventRow
{
    public Guid Id { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Kind { get; set; }

    /// <summary>Whom it is about, and who did it where that is somebody else.</summary>
    public required string Who { get; set; }
    public required string By { get; set; }
    public required string Device { get; set; }
    public required string Address { get; set; }
    public required string Detail { get; set; }
}
