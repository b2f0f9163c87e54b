using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fehler.Data.Migrations
{
    /// <inheritdoc />
    public partial class Upkeep : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "DrawnVersion",
                table: "Jobs",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Exercise",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "FirstNamed",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "FirstShare",
                table: "Jobs",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<long>(
                name: "FoundAt",
                table: "Jobs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "FoundCause",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "LastNamed",
                table: "Jobs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "LastShare",
                table: "Jobs",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<double>(
                name: "MinutesDown",
                table: "Jobs",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<int>(
                name: "Par",
                table: "Jobs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "ReadingCount",
                table: "Jobs",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Told",
                table: "Jobs",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "Tripped",
                table: "Jobs",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Conditions",
                table: "Circuits",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Outline",
                table: "Circuits",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "OutlineVersion",
                table: "Circuits",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "Intervals",
                columns: table => new
                {
                    Rule = table.Column<string>(type: "TEXT", nullable: false),
                    CircuitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Months = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Intervals", x => new { x.Rule, x.CircuitId });
                });

            migrationBuilder.CreateTable(
                name: "Measured",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    CircuitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Source = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    What = table.Column<int>(type: "INTEGER", nullable: false),
                    Device = table.Column<string>(type: "TEXT", nullable: false),
                    Points = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Value = table.Column<double>(type: "REAL", nullable: false),
                    Part = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Measured", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Measured_Circuits_CircuitId",
                        column: x => x.CircuitId,
                        principalTable: "Circuits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Parts",
                columns: table => new
                {
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    LeadWeeks = table.Column<double>(type: "REAL", nullable: false),
                    Stock = table.Column<int>(type: "INTEGER", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Parts", x => x.Name);
                });

            migrationBuilder.CreateTable(
                name: "Shutdowns",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    Begins = table.Column<long>(type: "INTEGER", nullable: false),
                    CreatedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Shutdowns", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Work",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    CircuitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Rule = table.Column<string>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Minutes = table.Column<double>(type: "REAL", nullable: false),
                    Working = table.Column<string>(type: "TEXT", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Work", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Work_Circuits_CircuitId",
                        column: x => x.CircuitId,
                        principalTable: "Circuits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Measured_CircuitId",
                table: "Measured",
                column: "CircuitId");

            migrationBuilder.CreateIndex(
                name: "IX_Measured_Part_What",
                table: "Measured",
                columns: new[] { "Part", "What" });

            migrationBuilder.CreateIndex(
                name: "IX_Measured_Source",
                table: "Measured",
                column: "Source");

            migrationBuilder.CreateIndex(
                name: "IX_Shutdowns_Begins",
                table: "Shutdowns",
                column: "Begins");

            migrationBuilder.CreateIndex(
                name: "IX_Work_CircuitId_Rule_At",
                table: "Work",
                columns: new[] { "CircuitId", "Rule", "At" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Intervals");

            migrationBuilder.DropTable(
                name: "Measured");

            migrationBuilder.DropTable(
                name: "Parts");

            migrationBuilder.DropTable(
                name: "Shutdowns");

            migrationBuilder.DropTable(
                name: "Work");

            migrationBuilder.DropColumn(
                name: "DrawnVersion",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "Exercise",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "FirstNamed",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "FirstShare",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "FoundAt",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "FoundCause",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "LastNamed",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "LastShare",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "MinutesDown",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "Par",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "ReadingCount",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "Told",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "Tripped",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "Conditions",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "Outline",
                table: "Circuits");

            migrationBuilder.DropColumn(
                name: "OutlineVersion",
                table: "Circuits");
        }
    }
}
