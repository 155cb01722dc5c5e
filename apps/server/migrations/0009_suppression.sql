CREATE TABLE "suppression_entries" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"suppression_list_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"hash" text NOT NULL,
	"key" text,
	"reason" text NOT NULL,
	"added_by" text NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "suppression_lists" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "suppression_lists_name_unique" UNIQUE("name")
);
--> statement-breakpoint
ALTER TABLE "suppression_entries" ADD CONSTRAINT "suppression_entries_suppression_list_id_suppression_lists_id_fk" FOREIGN KEY ("suppression_list_id") REFERENCES "public"."suppression_lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "suppression_entries_once" ON "suppression_entries" USING btree ("suppression_list_id","hash");--> statement-breakpoint
CREATE INDEX "suppression_entries_hash" ON "suppression_entries" USING btree ("hash");