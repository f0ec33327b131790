using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text.RegularExpressions;
using NetArchTest.Rules;

namespace DeepBaize.Core.Tests;

/// <summary>
/// The rooms of the core: each may use only what stands above it. docs/architecture.md draws them, and is held to the code here.
/// </summary>
public class ArchitectureTests
{
    private const string Root = "DeepBaize.Core";

    /// <summary>From the top down. Each row may use the rows above it, and the rooms of a row do not see one another.</summary>
    private static readonly string[][] Rows =
    [
        ["Geometry"],
        ["Work"],
        ["Table"],
        ["Physics"],
        ["Rules"],
        ["Scoring"],
        ["Play"],
        ["Strokes"],
        ["Players"],
        ["Sampling"],
        ["Reading"],
        ["Valuing"],
        ["Search"],
        ["Advice.Position", "Advice.Break", "Advice.Safety", "Advice.Escape", "Advice.BlackBall"],
        ["Advice.Decide"],
        ["Advice.Compare"],
        ["Practice"],
        ["Practice.Shipped"],
        ["Learning"],
        ["Photo", "Camera"],
        ["StandIns"],
    ];

    /// <summary>
    /// Rooms that stand above others and yet are not for all of them: the rules know no physics, for a ruling needs no simulator.
    /// </summary>
    private static readonly (string Room, string Unseen)[] AlsoUnseen = [("Rules", "Physics"), ("Scoring", "Physics")];

    private static readonly Assembly Core = typeof(InputException).Assembly;

    private static IEnumerable<string> Rooms => Rows.SelectMany(r => r);

    public static TheoryData<string, string> Arrows
    {
        get
        {
            var arrows = new TheoryData<string, string>();
            for (var row = 0; row < Rows.Length; row++)
                foreach (var room in Rows[row])
                    foreach (var below in Rows.Skip(row).SelectMany(r => r).Where(other => other != room))
                        arrows.Add(room, below);
            foreach (var (room, unseen) in AlsoUnseen)
                arrows.Add(room, unseen);
            return arrows;
        }
    }

    [Theory]
    [MemberData(nameof(Arrows))]
    public void A_room_uses_only_what_stands_above_it(string room, string unseen)
    {
        var result = Types
            .InAssembly(Core)
            .That()
            .ResideInNamespaceMatching($"^{Regex.Escape($"{Root}.{room}")}$")
            .ShouldNot()
            .HaveDependencyOn($"{Root}.{unseen}")
            .GetResult();
        Assert.True(result.IsSuccessful, $"{room} uses {unseen}: {string.Join(", ", result.FailingTypeNames ?? [])}");
    }

    [Fact]
    public void Every_type_has_a_room_and_every_room_has_types()
    {
        var inUse = Core.GetTypes()
            .Select(t => t.Namespace ?? "")
            .Where(n => n.StartsWith($"{Root}.", StringComparison.Ordinal))
            .Select(n => n[(Root.Length + 1)..])
            .Distinct();
        Assert.Equal(Rooms.Order(), inUse.Order());
    }

    [Fact]
    public void The_core_depends_on_nothing_but_the_base_library_and_a_general_one_for_numerics()
    {
        var foreign = Core.GetReferencedAssemblies()
            .Where(a => !a.Name!.StartsWith("System", StringComparison.Ordinal) && a.Name != "MathNet.Numerics")
            .Select(a => a.Name);
        Assert.Empty(foreign);
    }

    [Fact]
    public void The_picture_in_the_docs_shows_the_rooms_there_are()
    {
        var text = File.ReadAllText(SourceTree.Path("docs/architecture.md"));
        var picture = Regex.Match(text, "```rooms\n(.*?)```", RegexOptions.Singleline).Groups[1].Value;
        // A row is its rooms, with dots between them, before what is in them.
        var drawn = picture
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Where(line => line[0] != ' ')
            .Select(line => Regex.Split(line, "  +")[0].Split(" · "));
        Assert.Equal(Rows.Select(r => string.Join(" · ", r)), drawn.Select(r => string.Join(" · ", r)));
    }

    /// <summary>
    /// Where more would be needed, a concept is missing; but for the loops of the physics, which keep to plain numbers for speed.
    /// </summary>
    [Fact]
    public void No_method_takes_more_than_seven_parameters()
    {
        const BindingFlags all =
            BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance | BindingFlags.Static | BindingFlags.DeclaredOnly;
        var tooMany =
            from type in Core.GetTypes().Where(t => t.Namespace != $"{Root}.Physics")
            from method in type.GetMethods(all)
            where !method.IsDefined(typeof(CompilerGeneratedAttribute)) && !method.Name.Contains('<') && method.Name != "Deconstruct"
            where method.GetParameters().Length > 7
            select $"{type.Name}.{method.Name}";
        Assert.Empty(tooMany);
    }
}
