CREATE TABLE "acts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"contacts" bigint,
	"detail" text NOT NULL,
	"before" jsonb,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "edits" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "edits_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"act_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"column_name" text NOT NULL,
	"value" text NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "left_out" (
	"act_id" uuid PRIMARY KEY NOT NULL,
	"list_id" uuid NOT NULL,
	"code" text NOT NULL,
	"batch_id" uuid,
	"contact_id" bigint,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "routines" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"routine" jsonb NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "routines_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "tidy_counts" (
	"list_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"code" text NOT NULL,
	"contacts" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "changes" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "hand" smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "lists" ADD COLUMN "routine" jsonb;--> statement-breakpoint
ALTER TABLE "lists" ADD COLUMN "routine_name" text;--> statement-breakpoint
ALTER TABLE "acts" ADD CONSTRAINT "acts_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edits" ADD CONSTRAINT "edits_act_id_acts_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."acts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "left_out" ADD CONSTRAINT "left_out_act_id_acts_id_fk" FOREIGN KEY ("act_id") REFERENCES "public"."acts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "left_out" ADD CONSTRAINT "left_out_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "acts_list" ON "acts" USING btree ("list_id","made_at");--> statement-breakpoint
CREATE INDEX "edits_contact" ON "edits" USING btree ("contact_id") WHERE undone_at is null;--> statement-breakpoint
CREATE UNIQUE INDEX "edits_once" ON "edits" USING btree ("act_id","contact_id","column_name");--> statement-breakpoint
CREATE INDEX "left_out_list" ON "left_out" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "left_out_contact" ON "left_out" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "tidy_counts_list" ON "tidy_counts" USING btree ("list_id");--> statement-breakpoint
CREATE INDEX "contacts_hand" ON "contacts" USING btree ("list_id","hand" DESC NULLS LAST,"id") WHERE hand > 0;