CREATE TABLE "lane_rules" (
	"list_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"lane" text NOT NULL,
	"name" text NOT NULL,
	"use" text NOT NULL,
	"filter" text NOT NULL,
	CONSTRAINT "lane_rules_list_id_lane_pk" PRIMARY KEY("list_id","lane")
);
--> statement-breakpoint
CREATE TABLE "segments" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"name" text NOT NULL,
	"filter" text NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "segments_name" UNIQUE("list_id","name")
);
--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "can_text" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "can_call" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "lane_by_hand" text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE "contacts" SET "can_text" = "lane" = 'text', "can_call" = "lane" in ('text', 'call') WHERE "lane" in ('text', 'call');
